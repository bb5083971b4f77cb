import { z } from 'zod';

/** What the bodies of entries are made of. Lengths mm, angles degrees. */
export const id = z
  .uuid({ error: 'expected an id in UUID form' })
  .describe('UUID (version 7 where a device makes it).');
export const degrees = (from: number, to: number, what: string): z.ZodNumber => {
  const error = `${what} must lie between ${from} and ${to} degrees`.replaceAll('-', '−');
  return z.number({ error }).min(from, { error }).max(to, { error });
};
export const lengthMm = (most: number, what: string): z.ZodNumber =>
  z
    .number({ error: `${what} must be a length in millimetres` })
    .positive({ error: `${what} must be more than 0` })
    .max(most, { error: `${what} must be at most ${most} mm` })
    .describe('Millimetres.');
export const text = (most: number, what: string): z.ZodString =>
  z
    .string({ error: `${what} must be text` })
    .trim()
    .min(1, { error: `${what} must not be empty` })
    .max(most, { error: `${what} must be at most ${most} characters` });

export const ratio = (what: string): z.ZodNumber => {
  const error = `${what} must lie between 0.5 and 3: valve travel for each 1 of lobe`;
  return z.number({ error }).min(0.5, { error }).max(3, { error });
};
export const liftMm = (most: number, what: string): z.ZodNumber =>
  z
    .number({ error: `${what} must be a length in millimetres` })
    .min(0, { error: `${what} cannot be negative` })
    .max(most, { error: `${what} must be at most ${most} mm` })
    .describe('Millimetres.');

export const valve = z.enum(['intake', 'exhaust']);
export const bank = z
  .union([z.literal(1), z.literal(2)])
  .describe('Which bank of cylinders; 1 where there is only one.');
export const camName = z.enum(['single', 'intake', 'exhaust']);
export const instrument = z
  .strictObject({ box: text(40, 'the name of the box') })
  .describe('Taken from an instrument, and from which bench box. Left out: read and typed by the builder.');
