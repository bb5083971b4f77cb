import { advanceOfSetting, settingLabel } from '../timing-set/hardware';
import { signed } from '../timing-set/kinds/kind';
import type { DriveFinding, MoveFinding, PartFinding } from '../findings/derive-drive';
import { remember } from '../record/remember';
import { NORMAL_95 } from '../statistics/normal';
import { computedDegrees } from '../units/degrees';
import type { Report } from './report-schema';

/** The drive as the Report has it. */
export function reportDrive({ entry, camTurns, parts }: DriveFinding): Report['drive'] {
  return {
    entry,
    camTurns,
    parts: parts.map((part) => ({
      part: part.part,
      name: part.name,
      library: part.library,
      kind: part.hardware.kind,
      hardware: part.hardware,
      cam: part.cam,
      bank: part.bank,
      turns: part.turns.map(({ name }) => name),
      setting: part.at,
      stands: settingLabel(part.hardware, part.at),
      advance: advanceOfSetting(part.hardware, part.at),
      experience: [...part.experience],
      response: part.response.response,
      responseStandard: part.response.standard,
      learned: learnedWords(part),
      angle: angleWords(part),
    })),
  };
}

function angleWords({ angle }: PartFinding): Report['drive']['parts'][number]['angle'] {
  if (!angle) return null;
  const { nominal, tolerance, shows, correction, advance, windUp, setTo, seen } = angle;
  const right = Math.abs(correction) < 0.05;
  const spring =
    seen === 0 ? '' : ` In ${seen === 1 ? 'one move' : `${seen} moves`} its spring took back ${signed(windUp)}.`;
  return {
    nominal,
    tolerance,
    shows,
    correction,
    advance,
    windUp,
    setTo,
    words: right
      ? `It shows ${signed(shows)}, as it should.${spring}`
      : `It shows ${signed(shows)}, nominal ${signed(nominal)}: correction ${signed(correction)} in its own scale, which is ${turnsCam(advance)} at the crank. With the drive loose set it to ${signed(setTo)}.${spring}`,
  };
}

/** "3.0° earlier (advance)": a sign alone is read either way. */
const turnsCam = (advance: number): string =>
  `${computedDegrees(Math.abs(advance))} ${advance < 0 ? 'later (retard)' : 'earlier (advance)'}`;

const sameMove = remember<MoveFinding, Report['moves'][number]>();

/** Every move and what it gave. */
export const reportMoves = ({ moves }: DriveFinding): Report['moves'] =>
  [...moves.values()].map((move) => sameMove(move, [], () => reportMove(move)));

function reportMove({ trial, parts, cams }: MoveFinding): Report['moves'][number] {
  return {
    trial,
    parts: parts.map(({ fitted, to, label }) => ({
      part: fitted.part,
      name: fitted.name,
      from: settingLabel(fitted.hardware, fitted.at),
      to: settingLabel(fitted.hardware, to),
      label,
    })),
    cams: cams.map(({ cam, label, expected, gave, standard }) => ({
      cam: cam.cam,
      bank: cam.bank,
      label,
      expected,
      gave,
      standard,
    })),
    words: gaveWords(cams),
  };
}

/** "The cam came 4.9° forward ±0.4° of the 6.0° that its label says." */
function gaveWords(cams: MoveFinding['cams']): string | null {
  const words = cams.flatMap(({ cam, label, gave, standard }) => {
    if (gave === null || standard === null) return [];
    const name = cam.name.charAt(0).toUpperCase() + cam.name.slice(1);
    const within = `±${computedDegrees(Math.max(NORMAL_95 * standard, 0.05))}`;
    const did =
      Math.abs(gave) < 0.05
        ? 'did not move'
        : `went ${computedDegrees(Math.abs(gave))} ${gave > 0 ? 'earlier' : 'later'}`;
    const of = label === null || Math.abs(label) < 0.05 ? '' : `; its label says ${turnsCam(label)}`;
    return [`${name} ${did}, ${within}${of}.`];
  });
  return words.length > 0 ? words.join(' ') : null;
}

function learnedWords({ response, own, ...part }: PartFinding): string | null {
  if (response.learnedFrom === 0) return null;
  const last = own.at(-1) ?? part.experience.at(-1);
  const elsewhere = part.experience.length;
  const from = [
    own.length > 0 ? `${own.length} ${own.length === 1 ? 'move' : 'moves'} here` : null,
    elsewhere > 0 ? `${elsewhere} on other engines` : null,
  ].filter((each) => each !== null);
  const told = last
    ? `From ${settingLabel(part.hardware, last.from)} to ${settingLabel(part.hardware, last.to)} it gave ${turnsCam(last.gave)} ±${computedDegrees(NORMAL_95 * last.standard)}. `
    : '';
  return `${told}The plan counts on ${percentOf(response.response)} of its label, ±${percentOf(NORMAL_95 * response.standard)}, learned from ${from.join(' and ')}.`;
}

const percentOf = (share: number): string => `${Math.round(100 * share)} %`;
