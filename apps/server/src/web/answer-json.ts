import { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import type { Context, TypedResponse } from 'hono';

/**
 * Answers with JSON that is there as text already: a logbook of megabytes is not read and written once more on the thread that answers everybody.
 * @param _shape gives the type of what the text says, for the app's client; its value is not looked at.
 */
export const answerJson = <T>(c: Context, text: string, _shape: T): TypedResponse<T, 200, 'json'> & Response =>
  c.body(text, 200, { 'Content-Type': 'application/json' }) as unknown as TypedResponse<T, 200, 'json'> & Response;

/** The same for JSON that is compressed already. Whoever does not take it so gets it unpacked piece by piece. */
export function answerPackedJson<T>(
  c: Context,
  packed: Uint8Array,
  _shape: T,
): TypedResponse<T, 200, 'json'> & Response {
  const headers = { 'Content-Type': 'application/json', Vary: 'Accept-Encoding' };
  const answer = /\bgzip\b/.test(c.req.header('accept-encoding') ?? '')
    ? c.body(new Uint8Array(packed), 200, { ...headers, 'Content-Encoding': 'gzip' })
    : c.body(Readable.toWeb(Readable.from([packed]).pipe(createGunzip())) as ReadableStream, 200, headers);
  return answer as unknown as TypedResponse<T, 200, 'json'> & Response;
}
