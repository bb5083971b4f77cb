import { z } from 'zod';
import { isWellFormed } from '../../units/text';
import './plain-words';
import { ROCKER_RATIO } from './limits';

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
    .max(most, { error: `${what} must be at most ${most} characters` })
    .refine(isWellFormed, { error: `${what} ends in half a character: it was cut in the middle of one` });

/** A clock that is plainly wrong says 1970; what lies outside of these years no clock says. */
const FIRST_YEAR = 1970;
const LAST_YEAR = 2199;
/** A time of a device or a server. ISO 8601 with its offset. */
export const time = z.iso.datetime({ offset: true, error: 'expected a time such as 2026-03-14T09:26:53Z' }).refine(
  (given) => {
    const year = new Date(given).getUTCFullYear();
    return year >= FIRST_YEAR && year <= LAST_YEAR;
  },
  { error: `expected a time between the years ${FIRST_YEAR} and ${LAST_YEAR}` },
);

export const ratio = (what: string): z.ZodNumber => {
  const [from, to] = ROCKER_RATIO;
  const error = `${what} must lie between ${from} and ${to}: valve travel for each 1 of lobe`;
  return z.number({ error }).min(from, { error }).max(to, { error });
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
