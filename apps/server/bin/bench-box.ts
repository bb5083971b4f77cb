import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { WebSocket } from 'ws';
import { z } from 'zod';
import { VALVES } from '@yosoku/core/cam/card';
import { advanced, lobeAt } from '@yosoku/core/cam/lobe';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { PERFECT_BOX, USUAL_BOX, makeBenchBox } from '@yosoku/core/simulation/bench-box';
import { makeRandom } from '@yosoku/core/statistics/random';

/**
 * `npm run bench-box -- --url http://127.0.0.1:8787 --key KEY`: stands in for a bench box on an engine, until it is stopped.
 * It speaks docs/instruments.md, and follows a script of turns: `[{ "to": 360, "seconds": 30 }, …]`, degrees of the crank from overlap TDC.
 */
function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(2);
}

const scriptSchema = z
  .array(z.strictObject({ to: z.number().min(-10_000).max(10_000), seconds: z.number().positive().max(3600) }))
  .min(1);
type Script = z.infer<typeof scriptSchema>;

/** Round both lobes, slowly, with a step back on the way as hands make one. */
const SLOW_TURN: Script = [
  { to: -360, seconds: 2 },
  { to: 100, seconds: 25 },
  { to: 90, seconds: 2 },
  { to: 400, seconds: 20 },
];
const COMES_BACK_MS = 1_000;

const { values } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:8787' },
    key: { type: 'string' },
    name: { type: 'string', default: 'stand-in' },
    rate: { type: 'string', default: '50' },
    unit: { type: 'string', default: 'mm' },
    errors: { type: 'string', default: 'usual' },
    late: { type: 'string', default: '3' },
    script: { type: 'string' },
  },
});
const { url, key, name, script } = values;
if (!key) fail('usage: npm run bench-box -- --key KEY [--url URL] [--rate LINES] [--late DEGREES] [--script FILE]');
const [rate, late] = [Number(values.rate), Number(values.late)];
if (!(rate >= 5 && rate <= 1000)) fail('--rate: 5 to 1000 lines a second');
if (!Number.isFinite(late)) fail('--late: how late the cam sits, crank degrees');
if (values.unit !== 'mm' && values.unit !== 'in') fail('--unit: mm or in');

function readScript(file: string): Script {
  try {
    return scriptSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch (error) {
    return fail(`${file}: ${error instanceof z.ZodError ? z.prettifyError(error) : 'cannot be read as JSON'}`);
  }
}
const turns = script ? readScript(script) : SLOW_TURN;

/** Where the crank stands so many seconds after the beginning; it stays where the last turn ends. */
function crankAt(seconds: number): number {
  let [from, begun] = [-400, 0];
  for (const { to, seconds: lasts } of turns) {
    if (seconds < begun + lasts) return from + ((to - from) * (seconds - begun)) / lasts;
    begun += lasts;
    from = to;
  }
  return from;
}

const began = performance.now();
const say = makeBenchBox(name, values.errors === 'none' ? PERFECT_BOX : USUAL_BOX, makeRandom(began), values.unit);
const lobes = VALVES.map((valve) => advanced(PRACTICE_SIX.lobes[valve], -late));
let socket: WebSocket | null = null;
let said = 0;

function plugIn(): void {
  const line = new WebSocket(`${url.replace(/^http/, 'ws')}/api/instruments/speak`, {
    headers: { Authorization: `Bearer ${key}` },
  });
  line.on('open', () => {
    socket = line;
    console.log('plugged in');
  });
  line.on('unexpected-response', (_request, { statusCode }) =>
    fail(`the server answers ${statusCode}: is the key right?`),
  );
  line.on('error', () => undefined);
  line.on('close', (code, why) => {
    socket = null;
    console.log(`unplugged (${code}${why.length > 0 ? `, ${why.toString()}` : ''}); comes back`);
    setTimeout(plugIn, COMES_BACK_MS);
  });
}
plugIn();
setInterval(() => {
  const ms = performance.now() - began;
  const lines: string[] = [];
  for (const due = (ms * rate) / 1000; said < due; said += 1) {
    const at = (said * 1000) / rate;
    const crank = crankAt(at / 1000);
    const [intake = 0, exhaust = 0] = lobes.map((lobe) => lobeAt(lobe, crank).lift);
    const line = say(at, crank, [intake, exhaust]);
    if (line !== null) lines.push(`${line}\n`);
  }
  if (socket && lines.length > 0) socket.send(lines.join(''));
}, 20);
