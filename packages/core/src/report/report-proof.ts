import { READ_METHODS } from '../measure/read-methods';
import { computedDegrees } from '../units/degrees';
import type { ProofFinding, ProofReading } from '../findings/derive-proof';
import type { Report, ReportVerdict } from './report-schema';

/** What the sentences of the proof speak of. */
export interface ProofContext {
  /** Of the trial that is being read. */
  readonly verdict: ReportVerdict | null;
  readonly limit: number;
  /** Is there a second bank, whose readings have to be told apart? */
  readonly banked: boolean;
  /** Why the place of the cams is left as it is, in words. */
  readonly accepted: string | null;
  /** What the hardware really gave, in words. */
  readonly gave: string | null;
}

/** The proof as the Report has it. */
export function reportProof(proof: ProofFinding, context: ProofContext): Report['proof'] {
  const next = proof.next.map((each) => ({ ...each, words: askedWords(each, context.banked) }));
  return {
    state: proof.state,
    sentence: proofWords(proof, next, context),
    rows: proof.rows.map(({ predicted, measured, off, agrees }) => ({
      title: predicted.title,
      predicted: predicted.shows,
      measured: measured?.shows ?? null,
      off,
      agrees,
    })),
    next,
    gave: proof.state === 'nothing' ? null : context.gave,
  };
}

const askedWords = ({ method, valve, bank }: ProofReading, banked: boolean): string =>
  `Read ${READ_METHODS[method].asked(valve)}${banked ? ` of bank ${bank}` : ''}.`;

function proofWords(
  { because }: ProofFinding,
  next: Report['proof']['next'],
  { verdict, limit, accepted }: ProofContext,
): string {
  const headline = verdict?.headline ?? '';
  switch (because) {
    case 'stays':
      return 'Nothing was moved, and nothing has to be: the verdict stands.';
    case 'nothing-moved':
      return 'Nothing has been moved yet. Decide first, then move.';
    case 'find-tdc':
      return 'Find TDC again first: it was lost with the move. Then read the cam.';
    case 'read': {
      const count = next.reduce((sum, { readings }) => sum + readings, 0);
      const shows = count === 1 ? 'One reading shows' : `${count} readings show`;
      return `${shows} whether it worked. ${next.map(({ words }) => words).join(' ')}`;
    }
    case 'read-angle':
      return 'Turn the crank two full turns the way it runs, then read the angle of each phaser again, at Move.';
    case 'read-again':
      return 'Read the cam again.';
    case 'proved':
      return `Proved. ${headline} That is inside ±${computedDegrees(limit)}.`;
    case 'wrong-way':
      return `It went the wrong way. ${headline} Look which way the hardware was put in, then move it again.`;
    case 'not-there':
      return `Not there yet. ${headline} Move it again: what it gave this time is counted in.`;
    case 'accepted':
      return `${headline} ${accepted ?? ''}`;
    case 'doubt':
      return headline;
  }
}
