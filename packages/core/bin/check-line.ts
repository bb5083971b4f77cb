import { readFileSync } from 'node:fs';
import { checksum, parseLine } from '../src/instruments/line';

/**
 * `npm run -s check-line -- "LINE"`, or lines on standard input: says of each whether a bench box may say it. Exit 1 where one is refused.
 */
const WHY = {
  garbage: 'not of the form: nine words, a single space between them, "yb1" first, at most 120 characters',
  figure: 'a word says what cannot be: look at name, counters, angle, lifts and unit',
} as const;

const given = process.argv.slice(2);
const lines =
  given.length > 0
    ? [given.join(' ')]
    : readFileSync(0, 'utf8')
        .split(/\r?\n/)
        .filter((line) => line !== '');
for (const line of lines) {
  const spoken = parseLine(line);
  if (spoken.ok) {
    const { box, seq, angle, lifts } = spoken.sample;
    const [first, second] = lifts.map((mm) => (mm === null ? 'none' : `${mm.toFixed(4)} mm`));
    console.log(`accepted: ${box}, line ${seq}, ${angle}°, lifts ${first}, ${second}`);
  } else {
    process.exitCode = 1;
    const wanted = checksum(line.slice(0, line.lastIndexOf(' ')));
    console.log(`refused: ${spoken.why === 'checksum' ? `the checksum should be ${wanted}` : WHY[spoken.why]}`);
  }
}
