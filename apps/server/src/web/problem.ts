import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { z } from 'zod';
import { fieldPath } from '@yosoku/core/record/issue-path';

/** What was wrong with one field. */
export interface FieldTrouble {
  readonly field: string;
  readonly message: string;
}

/** A problem as plain data. */
export interface ProblemFields {
  readonly status: ContentfulStatusCode;
  readonly title: string;
  readonly detail: string;
  readonly fields: readonly FieldTrouble[];
}

/** The one shape of every error: problem details, RFC 9457, with a `detail` that a builder understands. */
export class Problem extends Error {
  constructor(
    readonly status: ContentfulStatusCode,
    readonly title: string,
    readonly detail: string,
    readonly fields: readonly FieldTrouble[] = [],
  ) {
    super(detail);
  }

  fieldsOf(): ProblemFields {
    const { status, title, detail, fields } = this;
    return { status, title, detail, fields };
  }

  static of({ status, title, detail, fields }: ProblemFields): Problem {
    return new Problem(status, title, detail, fields);
  }
}

/** What is refused for the moment may be asked for again after this, s. */
const RETRY_AFTER_S = '2';

/** Writes a problem as the answer. Media type application/problem+json. */
export function answerProblem(c: Context, { status, title, detail, fields }: Problem): Response {
  const body = { type: 'about:blank', title, status, detail, ...(fields.length > 0 ? { fields } : {}) };
  return c.body(JSON.stringify(body), status, {
    'Content-Type': 'application/problem+json',
    ...(status === 503 ? { 'Retry-After': RETRY_AFTER_S } : {}),
  });
}

/** A body that zod refused. Names the first few fields, not all of a long list. */
export function malformed(error: z.core.$ZodError): Problem {
  const fields = error.issues.slice(0, 10).map((issue) => ({
    field: fieldPath(issue.code === 'unrecognized_keys' ? [...issue.path, issue.keys[0] ?? ''] : issue.path),
    message: issue.code === 'unrecognized_keys' ? 'no such field here' : issue.message,
  }));
  const [first] = fields;
  const where = first?.field ? `${first.field}: ` : '';
  return new Problem(422, 'Not understood', `${where}${first?.message ?? 'the request makes no sense'}.`, fields);
}
