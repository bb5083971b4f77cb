import { type Hardware, type Setting, advanceOfSetting, reachOf } from '../timing-set/hardware';

/** An engine on the bench, as far as hands on its drive can feel it. */
export interface Bench {
  readonly rotation: 'clockwise' | 'counter-clockwise';
  readonly camTurns: 'with-crank' | 'against-crank';
  /** Where the opening side of the cam met the drop, crank degrees past TDC, before anything was moved. */
  readonly opening: number;
  /** What the wheel shows at true TDC, crank degrees; 0 once it was set anew. */
  readonly offset: number;
  /** Reads "65½° after" as crank degrees. */
  readonly read: (words: string) => number;
}

interface Part {
  readonly hardware: Hardware;
  readonly at: Setting;
}

/**
 * A pair of hands that does what each step says, to the letter, and nothing else: knows the parts and the way each thing runs, not what the plan wants.
 * @param parts in the order in which the steps take them up.
 * @returns how far the cam was advanced, crank degrees.
 * @throws Error on a step that cannot be done: a wheel that is off, a part that stands elsewhere, a direction that contradicts itself.
 */
export function obey(steps: readonly { readonly text: string }[], parts: readonly Part[], bench: Bench): number {
  let wheel: 'on' | 'off' | 'anew' = 'on';
  let held: number | null = null;
  let advanced = 0;
  const fail = (text: string, why: string): never => {
    throw new Error(`${why}: ${text}`);
  };
  const left = [...parts];
  for (const { text } of steps) {
    if (/Take the degree wheel off/.test(text)) {
      wheel = 'off';
      continue;
    }
    if (/Put the wheel back, find TDC again/.test(text)) {
      wheel = 'anew';
      continue;
    }
    const brought = /Bring the crank, coming the way it runs, to (.+) and hold it there/.exec(text);
    if (brought) {
      if (wheel === 'off') fail(text, 'the wheel is off');
      held = bench.read(brought[1] ?? '') - (wheel === 'anew' ? 0 : bench.offset);
      continue;
    }
    // The indicator decides: the cam comes to where its drop stands at the crank that is held, whatever was turned before.
    if (/bring .+ finely to where the indicator/.test(text)) {
      if (held === null) fail(text, 'nobody holds the crank');
      advanced = bench.opening - (held ?? 0);
      continue;
    }
    for (const part of left) {
      const by = turnOf(text, part, bench);
      if (by === null) continue;
      advanced += by;
      break;
    }
  }
  if (wheel === 'off' && !steps.some(({ text }) => /Put the wheel back/.test(text)))
    throw new Error('the wheel stays off');
  return advanced;
}

/** +1 for the way the cam runs, as far as the words of a step and the engine agree. */
function wayOf(text: string, what: 'cam' | 'crank', { rotation, camTurns }: Bench): 1 | -1 {
  const said = new RegExp(
    `(against )?the way the ${what} runs \\((clockwise|counter-clockwise), seen from the wheel\\)`,
  ).exec(text);
  if (!said) throw new Error(`no way is said: ${text}`);
  const other = rotation === 'clockwise' ? 'counter-clockwise' : 'clockwise';
  const runs = what === 'crank' || camTurns === 'with-crank' ? rotation : other;
  const way = said[2] === runs ? 1 : -1;
  if ((way === 1) === (said[1] !== undefined)) throw new Error(`the two ways contradict each other: ${text}`);
  return way;
}

const number = (text: string | undefined): number => Number((text ?? '').replace('−', '-').replace('+', ''));
const count = (text: string | undefined): number => (text === 'one' ? 1 : number(text));

/** How far one step turns the cam by one part; null where it does not speak of it. */
function turnOf(text: string, { hardware, at }: Part, bench: Bench): number | null {
  const stands = advanceOfSetting(hardware, at) ?? 0;
  const reach = reachOf(hardware);
  const labelled = (label: string | undefined): number => {
    const found = reach.kind === 'marks' ? reach.positions.find((each) => each.label === label) : undefined;
    if (!found) throw new Error(`there is no ${label}: ${text}`);
    return found.advance;
  };
  const from = (label: string | undefined): void => {
    if (Math.abs(labelled(label) - stands) > 1e-9) throw new Error(`it stands elsewhere: ${text}`);
  };
  switch (hardware.kind) {
    case 'keyways': {
      const said = /key in (the .+ keyway) \(it was in (the .+ keyway)\)/.exec(text);
      if (!said) return null;
      from(said[2]);
      return labelled(said[1]) - stands;
    }
    case 'bushings':
    case 'offset-dowel':
    case 'offset-key': {
      const said = /Exchange (the .+?) for (the [^:]+?)(?:, turned so that|\.$)/.exec(text);
      const noun = { bushings: 'bushing', 'offset-dowel': 'dowel', 'offset-key': 'key' }[hardware.kind];
      if (!said || !new RegExp(`\\b${noun}\\b`).test(said[1] ?? '')) return null;
      from(said[1]);
      // How large it is, the piece says; which way, how it is put in.
      const size = Math.abs(labelled(said[2]));
      return (size === 0 ? 0 : size * wayOf(text, hardware.kind === 'offset-key' ? 'crank' : 'cam', bench)) - stands;
    }
    case 'hole-circle': {
      const said = /the pin then goes (.+ gear), (.+ hub), counted (.+)\. Try/.exec(text);
      if (!said) return null;
      const holes = (words: string | undefined): number => {
        const on = /(\d+) holes? (on|back)/.exec(words ?? '');
        return on ? Number(on[1]) * (on[2] === 'on' ? 1 : -1) : 0;
      };
      const turn =
        720 * wayOf(said[3] ?? '', 'cam', bench) * (holes(said[1]) / hardware.gear - holes(said[2]) / hardware.hub);
      return turn - 720 * Math.round(turn / 720);
    }
    case 'hole-sets': {
      const tooth = 720 / hardware.teeth;
      const over = /Set the wheel (\S+) (?:tooth|teeth) over in the chain, (.+)\.$/.exec(text);
      if (over) return tooth * count(over[1]) * wayOf(over[2] ?? '', 'cam', bench);
      const said = /until its bolt holes meet hole set (\d+) of the wheel \(it was on hole set (\d+)\)/.exec(text);
      return said ? ((Number(said[1]) - Number(said[2])) * tooth) / hardware.sets : null;
    }
    case 'tooth-jump': {
      const said = /Turn the cam (\S+) (?:tooth|teeth) to (.+), and lay/.exec(text);
      return said ? (720 / hardware.teeth) * count(said[1]) * wayOf(said[2] ?? '', 'cam', bench) : null;
    }
    default: {
      const said = /from (\S+) to (\S+) (?:on its scale|on the scale|in the maker’s scale)/.exec(text);
      if (!said || reach.kind !== 'range') return null;
      if ('at' in at && Math.abs(number(said[1]) - at.at) > 1e-9) throw new Error(`it stands elsewhere: ${text}`);
      const by = (number(said[2]) - number(said[1])) * reach.perUnit;
      if (hardware.kind !== 'phaser' && Math.sign(by) !== wayOf(text, 'cam', bench))
        throw new Error(`the scale and the way contradict each other: ${text}`);
      return by;
    }
  }
}
