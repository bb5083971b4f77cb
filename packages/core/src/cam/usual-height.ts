/** The height at which cams are compared where nothing else is said, in the units of the build, mm: 0.050 in or 1 mm. Common practice, no source. */
export const USUAL_HEIGHT = { in: 1.27, mm: 1 } as const;
