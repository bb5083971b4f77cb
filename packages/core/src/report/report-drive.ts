import { advanceOfSetting, settingLabel } from '../timing-set/hardware';
import { signed } from '../timing-set/kinds/kind';
import { type DriveFinding, type PartFinding, signedDegrees } from '../findings/derive-drive';
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
      learned: part.learned,
      angle: angleWords(part),
    })),
  };
}

function angleWords({ angle }: PartFinding): Report['drive']['parts'][number]['angle'] {
  if (!angle) return null;
  const { nominal, shows, correction, advance, windUp, setTo, seen } = angle;
  const right = Math.abs(correction) < 0.05;
  const spring =
    seen === 0 ? '' : ` In ${seen === 1 ? 'one move' : `${seen} moves`} its spring took back ${signed(windUp)}.`;
  return {
    nominal,
    shows,
    correction,
    advance,
    windUp,
    setTo,
    words: right
      ? `It shows ${signed(shows)}, as it should.${spring}`
      : `It shows ${signed(shows)}, nominal ${signed(nominal)}: correction ${signed(correction)} in its own scale, which is ${signedDegrees(advance)} of advance at the crank. With the drive loose set it to ${signed(setTo)}.${spring}`,
  };
}

/** Every move and what it gave. */
export const reportMoves = ({ moves }: DriveFinding): Report['moves'] =>
  [...moves.values()].map(({ trial, parts, cams, words }) => ({
    trial,
    parts: [...parts],
    cams: cams.map(({ cam, label, expected, gave, standard }) => ({
      cam: cam.cam,
      bank: cam.bank,
      label,
      expected,
      gave,
      standard,
    })),
    words,
  }));
