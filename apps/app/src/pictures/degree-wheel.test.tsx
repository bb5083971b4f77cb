import type { Rotation } from '@yosoku/core/crank/rotation';
import type { WheelRing } from '@yosoku/core/crank/wheel';
import { drawn, partsOf } from '@/testing/drawn';
import { DegreeWheel, type WheelMark } from './degree-wheel';

interface Place {
  readonly text: string;
  /** Crank degrees clockwise of the pointer, as it is seen: −180 to 180. */
  readonly from: number;
}

const seenFrom = (x: number, y: number, turned: number): number => {
  const at = (Math.atan2(x, -y) * 180) / Math.PI + turned;
  return at - 360 * Math.round(at / 360);
};

/** What an eye sees on the wheel: its numbers, and its round marks, by how far from the pointer they stand. */
function seen(ring: WheelRing, rotation: Rotation, position: number, marks: readonly WheelMark[] = []) {
  const parts = drawn(
    <DegreeWheel
      ring={ring}
      rotation={rotation}
      position={position}
      size={300}
      figure=""
      word=""
      description="the wheel"
      marks={marks}
    />,
  );
  const turned = parts
    .map(({ props }) => /"rotate":"(-?[\d.]+)deg"/.exec(JSON.stringify(props.style ?? null))?.[1])
    .find((each) => each !== undefined);
  if (turned === undefined) throw new Error('the face is turned by nothing');
  const numbers = parts
    .filter(({ type }) => type === 'RNSVGText')
    .map((node): Place => {
      const [x = 0] = node.props.x as number[];
      const [y = 0] = node.props.y as number[];
      const text = partsOf(node).map(({ props }) => props.content);
      return { text: String(text.find((each) => typeof each === 'string')), from: seenFrom(x, y, Number(turned)) };
    });
  const round = parts
    .filter(({ type, props }) => type === 'RNSVGCircle' && (props.cx !== 0 || props.cy !== 0))
    .map(({ props }) => seenFrom(Number(props.cx), Number(props.cy), Number(turned)));
  return { numbers, round, under: numbers.find(({ from }) => Math.abs(from) < 1e-6)?.text };
}

const BOTH: readonly Rotation[] = ['clockwise', 'counter-clockwise'];

test.each([
  [{ ring: '0-180' }, 20, '20'],
  [{ ring: '0-180' }, -40, '40'],
  [{ ring: '0-180' }, 180, 'BDC'],
  [{ ring: '0-90' }, 100, '80'],
  [{ ring: '0-360', sense: 'rising' }, -20, '340'],
  [{ ring: '0-360', sense: 'falling' }, -20, '20'],
] as const)('%j with %s° under its pointer shows %s there, whichever way the engine runs', (ring, position, number) => {
  for (const rotation of BOTH) expect([rotation, seen(ring, rotation, position).under]).toEqual([rotation, number]);
});

test('turned on the way the engine runs, the wheel turns that way: the next number comes from the other side', () => {
  const nextOf = (rotation: Rotation): number | undefined =>
    seen({ ring: '0-180' }, rotation, 20)
      .numbers.filter(({ text }) => text === '40')
      .map(({ from }) => from)
      .find((from) => Math.abs(from) < 30);
  expect(nextOf('clockwise')).toBeCloseTo(-20, 6);
  expect(nextOf('counter-clockwise')).toBeCloseTo(20, 6);
});

test('what was measured stands where it was read: with that under the pointer again, right under it', () => {
  for (const rotation of BOTH) {
    const [mark] = seen({ ring: '0-180' }, rotation, 64, [{ at: 64, kind: 'measured' }]).round;
    expect(mark).toBeCloseTo(0, 6);
  }
});
