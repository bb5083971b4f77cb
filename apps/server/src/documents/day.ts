/** "2026-03-14". */
export const day = (time: string): string => time.slice(0, 10);
