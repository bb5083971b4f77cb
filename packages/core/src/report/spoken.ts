import { type WheelReading, sideWords } from '../crank/wheel';
import { MM_PER_INCH, type LengthUnit, formatLength } from '../units/length';
import { decimal } from '../units/decimal';
import { capital } from './capital';

/** Words for an ear at the engine: figures as the trade says them, never as they are written. */

const ONES =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'.split(
    ' ',
  );
const TENS = ' ten twenty thirty forty fifty sixty seventy eighty ninety'.split(' ');

/**
 * A whole number in words, 0 to 999,999.
 * @example spokenNumber(109) // "one hundred and nine"
 */
export function spokenNumber(whole: number): string {
  if (whole < 20) return ONES[whole] ?? '';
  if (whole < 100) return `${TENS[Math.floor(whole / 10)]}${whole % 10 === 0 ? '' : `-${ONES[whole % 10]}`}`;
  const [size, word] = whole < 1000 ? [100, 'hundred'] : [1000, 'thousand'];
  const rest = whole % size;
  const head = `${spokenNumber(Math.floor(whole / size))} ${word}`;
  return rest === 0 ? head : `${head} ${rest < 100 ? 'and ' : ''}${spokenNumber(rest)}`;
}

const QUARTERS: Readonly<Record<number, string>> = { 0.25: 'a quarter', 0.5: 'a half', 0.75: 'three quarters' };

/** `spokenFigure(69.5)` is "sixty-nine and a half", `spokenFigure(69.3)` "sixty-nine point three", `spokenFigure(-4)` "minus four". */
export function spokenFigure(value: number): string {
  if (value < 0) return `minus ${spokenFigure(-value)}`;
  const whole = Math.floor(value + 1e-9);
  const part = value - whole;
  if (part < 1e-6) return spokenNumber(whole);
  const quarter = QUARTERS[Math.round(part * 1e4) / 1e4];
  if (quarter !== undefined) return whole === 0 ? quarter : `${spokenNumber(whole)} and ${quarter}`;
  const digits = decimal(value, 3).replace(/0+$/, '').split('.')[1] ?? '';
  return `${spokenNumber(whole)} point ${[...digits].map((digit) => ONES[Number(digit)]).join(' ')}`;
}

/** Thousandths of an inch up to this are said as such. */
const MOST_THOU = 1000;

/**
 * A length as it is said across the shop.
 * @example spokenLength(1.27, 'in') // "fifty thou"
 * @example spokenLength(1.27, 'mm') // "one point two seven millimetres"
 */
export function spokenLength(mm: number, unit: LengthUnit): string {
  if (unit === 'mm')
    return `${spokenFigure(Math.round(mm * 1000) / 1000)} ${Math.abs(mm - 1) < 1e-9 ? 'millimetre' : 'millimetres'}`;
  const thou = Math.round((mm / MM_PER_INCH) * 1e4) / 10;
  if (Math.abs(thou) < MOST_THOU) return `${spokenFigure(thou)} thou`;
  return `${spokenFigure(Math.round(thou) / 1000)} inches`;
}

/** A reading as it stood under the pointer: "sixty-nine and a half before". Along a rim, in its own unit. */
function spokenReading(reading: WheelReading): string {
  const side =
    'side' in reading && reading.shows !== 0
      ? ` ${sideWords(reading.side).replace(/[TB]DC/, (name) => [...name].join(' '))}`
      : '';
  if (reading.ring !== 'rim') return `${spokenFigure(reading.shows)}${side}`;
  const length = reading.unit === 'in' ? spokenRuled(reading.shows) : spokenLength(reading.shows, 'mm');
  return `${length}${side}`;
}

/** What a divisor of an inch is called where there are several of it. */
const RULED = { 8: 'eighths', 16: 'sixteenths', 32: 'thirty-seconds' } as const;
const DIVISORS = [2, 4, 8, 16, 32] as const;
const ON_A_LINE = 0.02;

/** A length as it is read on a ruler: "one and seven eighths inches". */
function spokenRuled(mm: number): string {
  const inches = mm / MM_PER_INCH;
  const whole = Math.floor(inches + 1e-6);
  const divisor = DIVISORS.find(
    (each) => Math.abs((inches - whole) * each - Math.round((inches - whole) * each)) < ON_A_LINE,
  );
  const parts = divisor ? Math.round((inches - whole) * divisor) : 0;
  if (!divisor || divisor === 2 || divisor === 4) return `${spokenFigure(Math.round(inches * 1000) / 1000)} inches`;
  const said = `${spokenNumber(parts)} ${parts === 1 ? RULED[divisor].replace(/s$/, '') : RULED[divisor]}`;
  return `${whole === 0 ? '' : `${spokenNumber(whole)} and `}${said} inches`;
}

const VULGAR: Readonly<Record<string, number>> = { '¼': 0.25, '½': 0.5, '¾': 0.75 };
/** A figure as this program writes it, with its unit: "0.050 in", "26½°", "−3.0°", "1.27 mm". */
const WRITTEN = /([−-]?)(\d+(?:\.\d+)?)?([¼½¾])?(°| in\b| mm\b)/g;

/**
 * What this program writes, its figures as they are said: another rendering of the same text, from which nothing is learnt.
 * @example sayFigures('Come forward to 0.050 in before peak.') // "Come forward to fifty thou before peak."
 */
export const sayFigures = (written: string): string =>
  written.replace(WRITTEN, (whole: string, sign: string, figure = '', fraction = '', unit: string) => {
    if (figure === '' && fraction === '') return whole;
    const value = (Number(figure || 0) + (VULGAR[fraction] ?? 0)) * (sign === '' ? 1 : -1);
    if (unit === '°') return `${spokenFigure(value)} ${Math.abs(value) === 1 ? 'degree' : 'degrees'}`;
    return unit === ' in' ? spokenLength(value * MM_PER_INCH, 'in') : spokenLength(value, 'mm');
  });

interface ToRead {
  /** What the indicator is brought to, mm; null where it is read, or where there is none. */
  readonly height: number | null;
  /** "before peak" */
  readonly label: string;
  readonly approach: 'forward' | 'backward';
  readonly reads: 'wheel' | 'indicator';
}

/**
 * What the hands do for the next reading of the cam, as short as it is called across the shop.
 * @example turnInShort({ height: 1.27, label: 'before peak', approach: 'forward', reads: 'wheel' }, 'in') // "0.050 in before peak, coming forward. Read the wheel."
 */
export function turnInShort({ height, label, approach, reads }: ToRead, unit: LengthUnit): string {
  const what = height === null ? label : `${formatLength(height, unit)} ${label}`;
  return `${capital(what)}, coming ${approach === 'forward' ? 'forward' : 'back'}. Read the ${reads}.`;
}

/** The same for an ear: "Fifty thou before peak, coming forward. Read the wheel." */
export const spokenTurn = (turn: ToRead, unit: LengthUnit): string => capital(sayFigures(turnInShort(turn, unit)));

/**
 * What was written down, read back: whoever has both hands full hears at once when it is not what he said.
 * @param kept the wheel, or where none was read the lift in mm.
 * @example spokenBack({ wheel: { ring: '0-180', shows: 69, side: 'before' }, lift: null }, 'in') // "Sixty-nine before, kept."
 */
export function spokenBack(
  { wheel, lift }: { readonly wheel: WheelReading | null; readonly lift: number | null },
  unit: LengthUnit,
): string {
  const said = wheel ? spokenReading(wheel) : lift === null ? 'reading' : spokenLength(lift, unit);
  return `${capital(said)}, kept.`;
}
