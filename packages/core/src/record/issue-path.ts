import type { z } from 'zod';

/** A field's place as one reads it: `fieldPath(['entries', 3, 'body', 'wheel'])` is "entries[3].body.wheel". */
export const fieldPath = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${String(step)}` : String(step)),
    '',
  );

/**
 * The first trouble zod found, with the deepest place it can name.
 * @returns `field` is empty when the whole value is at fault.
 */
export function firstIssue(error: z.ZodError): { readonly field: string; readonly message: string } {
  const issue = error.issues[0];
  if (!issue) return { field: '', message: 'not understood' };
  if (issue.code === 'unrecognized_keys')
    return { field: fieldPath([...issue.path, issue.keys[0] ?? '']), message: 'no such field here' };
  return { field: fieldPath(issue.path), message: issue.message };
}
