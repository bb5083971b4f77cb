import type { Random } from '../statistics/random';

/** Sizes of what is wrong with a practice engine, as they are met. From memory. */
export const either = (random: Random): 1 | -1 => (random.even() < 0.5 ? -1 : 1);
export const between = (random: Random, least: number, most: number): number => least + random.even() * (most - least);
