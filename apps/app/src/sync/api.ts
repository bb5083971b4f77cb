import { hc } from 'hono/client';
import type { Api } from '@yosoku/server/api';

const origin = typeof location === 'undefined' ? 'http://127.0.0.1:8787' : location.origin;
export const api = hc<Api>(origin).api;

/** An answer that was not a success: what the server said, in a builder's words. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly fields: readonly { readonly field: string; readonly message: string }[],
  ) {
    super(detail);
  }
}

/** No answer at all: no network, or no server. */
export class Unreachable extends Error {}

interface Answer<T> {
  readonly ok: boolean;
  readonly status: number;
  json(): Promise<T>;
}

interface ProblemBody {
  readonly detail?: string;
  readonly fields?: Refusal['fields'];
}

const GATEWAY = [502, 503, 504];

/** The JSON of a successful answer. Throws `Refusal` or `Unreachable`. */
export async function ask<T>(request: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await request;
  } catch {
    throw new Unreachable('The server cannot be reached.');
  }
  if (GATEWAY.includes(answer.status)) throw new Unreachable('The server cannot be reached.');
  if (answer.ok) return answer.json();
  const body = (await answer.json().catch(() => ({}))) as ProblemBody;
  throw new Refusal(answer.status, body.detail ?? 'The server could not do that.', body.fields ?? []);
}
