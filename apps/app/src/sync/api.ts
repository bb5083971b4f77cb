import { hc } from 'hono/client';
import type { Api } from '@yosoku/server/api';
import { heedClock } from './clock';
import { heedGeneration } from './generation';

const origin = typeof location === 'undefined' ? 'http://127.0.0.1:8787' : location.origin;
/** Longer no answer is waited for, ms: a server that is frozen is as good as none, and work goes on without it. */
const PATIENCE_MS = 8_000;

/** What may take long: a large file, a sheet. */
export const LONG_PATIENCE_MS = 60_000;
/** Of so many bytes a posting may take long on a slow network. */
const LARGE = 48 * 1024;

const within =
  (patience: number): typeof fetch =>
  (input, init) =>
    fetch(input, {
      ...init,
      signal: AbortSignal.timeout(
        typeof init?.body === 'string' && init.body.length > LARGE ? LONG_PATIENCE_MS : patience,
      ),
    })
      .then(heedClock)
      .then(heedGeneration);

export const api = hc<Api>(origin, { fetch: within(PATIENCE_MS) }).api;

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

/** Refused for the moment, by whatever stands before the server or by itself: as good as not reached. */
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
  if (answer.ok)
    return answer.json().catch(() => {
      throw new Unreachable('The server’s answer broke off.');
    });
  const body = (await answer.json().catch(() => ({}))) as ProblemBody;
  throw new Refusal(answer.status, body.detail ?? 'The server could not do that.', body.fields ?? []);
}
