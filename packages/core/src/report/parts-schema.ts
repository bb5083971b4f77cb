import { z } from 'zod';

/** What the Report is made of. */
export const degrees = z.number().describe('Crank degrees.');
export const problemSchema = z.strictObject({ message: z.string(), remedy: z.string() });
export const valve = z.enum(['intake', 'exhaust']);
export const bank = z.union([z.literal(1), z.literal(2)]).describe('Of cylinders; 1 where there is only one.');
