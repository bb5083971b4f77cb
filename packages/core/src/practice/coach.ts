import { READ_METHODS } from '../measure/read-methods';
import type { Report } from '../report/report-schema';
import { STOP_DEPTH, type Stand, againstStop, pistonBelow } from '../simulation/whole-engine';
import { type Advice, atEngine } from './advice';
import { lashAdvice, playAdvice, pushrodAdvice } from './coach-valve-train';
import { EXERCISES, type ExerciseName } from './exercises';
import type { Scenario } from './scenario';

/** The next step of a practice, from how the engine stands and what its logbook says. */
export function adviceFor(exercise: ExerciseName, scenario: Scenario, stand: Stand, report: Report): Advice {
  const { goal } = EXERCISES[exercise];
  const { zero, verdict, proof } = report;
  if (zero.state !== 'proved') return zeroAdvice(scenario, stand, report);
  if (goal === 'tdc') return { sentence: 'TDC is proved. Press “Show me the truth”.', at: 'done' };
  if (stand.stop !== null) return atEngine('Take the stop out (“Stop out”): the cam wants whole turns.');
  if (goal === 'lash') return lashAdvice(stand, report);
  if (goal === 'pushrod') return pushrodAdvice(stand, report);
  if (goal === 'play') return playAdvice(stand, report);
  if (goal === 'lobe') return lobeAdvice(stand, report);
  if (verdict.kind === 'waiting' || verdict.kind === 'measure-again') return readAdvice(scenario, stand, report);
  if (goal === 'cam')
    return { sentence: `${verdict.headline} That is the answer: press “Show me the truth”.`, at: 'done' };
  if (goal === 'cause')
    return {
      sentence:
        'Look at Decide: what it finds odd is named there, with the check that tells. Measure the other valve too, then say what is wrong.',
      at: 'decide',
    };
  if (proof.state === 'proved') return { sentence: 'Proved. Press “Show me the truth”.', at: 'done' };
  return verdict.kind === 'move'
    ? {
        sentence: 'Move it as the Move station says. On the engine, put the hardware there too, then measure again.',
        at: 'move',
      }
    : { sentence: 'Measure again to prove it.', at: 'prove' };
}

function zeroAdvice({ engine: whole }: Scenario, stand: Stand, { zero }: Report): Advice {
  const { step } = zero;
  const noWheel = whole.ring.ring === 'rim';
  if (step.does === 'begin')
    return {
      sentence: noWheel
        ? 'Open Zero, choose “Rim marks, no wheel” among the other methods, say how large the balancer is, and begin.'
        : 'Open Zero and begin with the bar across the bore: the head is off.',
      at: 'zero',
    };
  if (step.does === 'set' && noWheel)
    return atEngine(
      `${zero.correction?.ways[0]?.text ?? 'The mark is right.'} Take the stop out, turn the crank until the tape shows so much from the first mark, and press “Mark here”; then say at Zero that it is made.`,
    );
  if (step.does === 'set') {
    // The crank stands against the stop: the wheel is set where it is held.
    const ways = zero.correction?.ways ?? [];
    const way = ways.find(({ part }) => part === 'hold') ?? ways[0];
    return atEngine(
      `${way?.text ?? 'The wheel is right.'} Press “Move wheel” and turn it on its hub, the crank held where it is; then say at Zero that it is set.`,
    );
  }
  if (step.does !== 'read')
    return { sentence: 'Look at what Zero says: a reading does not fit. Undo it and read again.', at: 'zero' };
  if (stand.stop === null)
    return pistonBelow(whole, stand) < STOP_DEPTH
      ? atEngine('The piston is too high for the stop. Turn it on until it is well down.')
      : atEngine('Put the stop in: “Stop in”.');
  const wanted = step.side === 'before' ? 'forward' : 'backward';
  if (againstStop(whole, stand) !== wanted)
    return atEngine(
      wanted === 'forward'
        ? 'Turn it the way it runs until the piston meets the stop.'
        : 'Turn it back, all the way round, until the piston meets the stop from the other side.',
    );
  if (noWheel && zero.setting === null && zero.passes.every(({ readings }) => readings.length !== 1))
    return {
      sentence: 'It stands against the stop. Press “Mark here”, and record 0 at Zero.',
      at: 'zero',
    };
  return {
    sentence: `It stands against the stop. ${noWheel ? 'Measure along the rim from the mark' : 'Read the wheel under the pointer'}, and type that at Zero.`,
    at: 'zero',
  };
}

function lobeAdvice({ dial }: Stand, { read, trials }: Report): Advice {
  const { next, sentence } = read.everyLobe;
  if (!next || trials.some(({ everyLobe }) => everyLobe.some(({ differs }) => differs)))
    return { sentence: 'Every lobe says which it is, under Read. Press “Show me the truth”.', at: 'done' };
  if ((dial.cylinder ?? 1) !== next.cylinder || dial.on !== next.valve)
    return atEngine(`Put the dial on cylinder ${next.cylinder}, ${next.valve}: “Cyl” and “Dial”.`);
  return { sentence: `${sentence} Type it at Every lobe.`, at: 'read' };
}

function readAdvice({ engine: whole }: Scenario, stand: Stand, { read }: Report): Advice {
  const [open] = read.open;
  const method = open?.method ?? read.proposal.method;
  const valve = open?.valve ?? read.proposal.valve;
  if (stand.dial.on !== valve) return atEngine(`Put the dial on the ${valve} lifter.`);
  const slot = READ_METHODS[method].slots[open?.slot ?? 0];
  const turn = (slot?.turn ?? '').replaceAll('{valve}', valve).replaceAll('{at}', 'the height that Read names');
  const back =
    stand.lag > 0.05 && slot?.approach === 'forward'
      ? ' You have turned back: come forward again well before the reading, so that the slack is taken up.'
      : '';
  const stuck =
    whole.lifter.kind === 'sticking' ? ' Push the lifters down by hand first: nothing else brings them down.' : '';
  return { sentence: `${turn}${back}${stuck} Then type it at Read.`, at: 'read' };
}
