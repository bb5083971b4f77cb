import { zValidator } from '@hono/zod-validator';
import type { z } from 'zod';
import { malformed } from './problem';

/** Checks a JSON body against a schema; what does not fit becomes a problem that names the field. */
export const checkedJson = <S extends z.ZodType>(schema: S) =>
  zValidator('json', schema, (result) => {
    if (!result.success) throw malformed(result.error);
  });

/** The same for the query of an address. */
export const checkedQuery = <S extends z.ZodType>(schema: S) =>
  zValidator('query', schema, (result) => {
    if (!result.success) throw malformed(result.error);
  });
