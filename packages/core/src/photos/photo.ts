/** The longer side of a picture, pixels: wheel and card can be read from it. */
export const PHOTO_EDGE = 2_000;
/** Of one picture as JPEG. */
export const PHOTO_BYTES = 3 * 1024 * 1024;
/** Of one build. */
export const MOST_PHOTOS = 200;

/** What a photo may show: the card, the wheel, the pattern on a valve tip, damage, something else. */
export const PHOTO_SUBJECTS = ['card', 'wheel', 'tip', 'damage', 'other'] as const;
