import type { Report } from '../report/report-schema';
import { valveAtHand } from '../simulation/valve-lash';
import type { Stand } from '../simulation/whole-engine';
import { formatLength } from '../units/length';
import { type Advice, atEngine } from './advice';

/** What a good colleague would say at the valves, the rockers and the nose of the cam. */

export function lashAdvice(stand: Stand, { lash }: Report): Advice {
  const { job } = lash;
  if (!job)
    return {
      sentence: 'Open Lash. Cold, as the card has it; by its partner, or in another order; begin with the first valve.',
      at: 'lash',
    };
  if (!job.next) return { sentence: 'Every valve is set and looked at again. Press “Show me the truth”.', at: 'done' };
  const { cylinder, valve } = job.next;
  const hand = valveAtHand(stand);
  if (hand.cylinder !== cylinder || hand.valve !== valve)
    return atEngine(`${lash.sentence} Take the ${valve} of cylinder ${cylinder} in hand: “Cyl” and “Valve”.`);
  return atEngine(
    `${lash.sentence} Try blades until the thickest that slides is found; “Set to blade” turns the adjuster and locks it. Then record it at Lash.`,
  );
}

/** A length is as good as the one that was asked for within this, mm. */
const SAME_LENGTH = 0.2;

export function pushrodAdvice({ rockers: own }: Stand, { rockers, build }: Report): Advice {
  const intake = rockers.valves.find(({ valve }) => valve === 'intake');
  if (!own || !intake) return { sentence: rockers.sentence, at: 'rockers' };
  if (intake.order) return { sentence: 'The pushrods are ordered. Press “Show me the truth”.', at: 'done' };
  const length = formatLength(own.length, build.units);
  if (intake.chosen !== null)
    return {
      sentence:
        'This geometry is right. At Rockers, open the length to order: as long as the adjustable one, the lifter that will run, preload 0.',
      at: 'rockers',
    };
  const { next } = intake;
  if (intake.trials.length > 0 && next !== null && Math.abs(own.length - next) > SAME_LENGTH)
    return atEngine(`${rockers.sentence} Set the adjustable pushrod: “Shorter” and “Longer”. It is ${length} now.`);
  if (own.shows === null || Math.abs(own.shows - own.length) > SAME_LENGTH)
    return atEngine(`Mark the tip and turn it over: “Turn over”. The pushrod is ${length} long.`);
  return {
    sentence: `Read the pattern on the tip against its scale, and where the roller stands at mid-lift. Record the trial of ${length} at Rockers.`,
    at: 'rockers',
  };
}

export function playAdvice({ endPlay: own }: Stand, { prepare }: Report): Advice {
  const { endPlay: said } = prepare;
  if (!own) return { sentence: 'Open Prepare, at the end play of the cam.', at: 'prepare' };
  const isOld = said === null || Math.abs(said.play - own.play) > SAME_PLAY;
  if (said?.state === 'inside' && !isOld) return { sentence: 'It is cured. Press “Show me the truth”.', at: 'done' };
  if (!isOld && (said?.state === 'tight' || said?.state === 'loose'))
    return atEngine(`${said.words} “File” and “Shim” do it, a thousandth at a time; then measure it again.`);
  if (own.pull !== 'gentle')
    return atEngine(
      'Pull the cam gently forward and read the dial; let go, and see that the needle comes back to zero. Pulled hard, the cover gives.',
    );
  return {
    sentence:
      'Write it down at Prepare, Cam end play: a button, the cover bolted up, and whether the needle came back.',
    at: 'prepare',
  };
}

/** A play that was written down is the one of now within this, mm: what a dial tells. */
const SAME_PLAY = 0.04;
