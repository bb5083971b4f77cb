import { GONE_WRONG } from '../simulation/gone-wrong';
import { measureSomeCam } from '../simulation/measured-cam';
import { makeRandom } from '../statistics/random';
import { diagnose } from './diagnose';
import { FAULTS, FAULT_NAMES, type FaultName } from './faults';

const ENGINES = 14;
const APART = 12;

/** Would readings without any error tell this fault from all that are not named with it? */
function tellsApart(seed: number, fault: FaultName): boolean {
  const wrong = GONE_WRONG[fault]?.(makeRandom(seed)) ?? {};
  const exact = measureSomeCam(makeRandom(seed + 1), { ...wrong, thorough: true, exact: true });
  const { named, ranked } = diagnose(exact.evidence);
  const outside = ranked.find((each) => !FAULTS[each.fault].vague && !named.includes(each));
  return (
    named.some((each) => each.fault === fault) &&
    Math.max(...named.map(({ better }) => better)) - (outside?.better ?? 0) >= APART
  );
}

describe('each fault, made on virtual engines that err as people and instruments do', () => {
  const counted = { apart: 0, named: 0 };
  test.each(FAULT_NAMES.filter((fault) => GONE_WRONG[fault]))('%s', (fault) => {
    let [apart, named] = [0, 0];
    for (let i = 0; i < ENGINES; i += 1) {
      const seed = 500 + 10 * i;
      if (!tellsApart(seed, fault)) continue;
      const wrong = GONE_WRONG[fault]?.(makeRandom(seed)) ?? {};
      const found = diagnose(measureSomeCam(makeRandom(seed + 1), { ...wrong, thorough: true }).evidence);
      apart += 1;
      if (found.named.some((each) => each.fault === fault)) named += 1;
    }
    counted.apart += apart;
    counted.named += named;
    expect(apart).toBeGreaterThan(0);
    expect(named).toBeGreaterThanOrEqual(Math.ceil(0.9 * apart) - 1);
  });

  test('where the readings can tell, it is named in at least 95 of 100', () =>
    expect(counted.named / counted.apart).toBeGreaterThanOrEqual(0.95));
});

test('a wheel that was proved again after the readings had not moved between them', () => {
  const slipped = GONE_WRONG['wheel-slipped']?.(makeRandom(540)) ?? {};
  const { evidence } = measureSomeCam(makeRandom(541), { ...slipped, thorough: true });
  const accused = (settled: number): boolean =>
    diagnose({ ...evidence, settled }).ranked.some(({ fault }) => fault === 'wheel-slipped');
  expect(accused(0)).toBe(true);
  expect(accused(evidence.observations.length)).toBe(false);
});

test('no lift at TDC where there must be some: the crank stood at the other TDC', () => {
  const { evidence } = measureSomeCam(makeRandom(77), { thorough: true, cams: 'single' });
  const { named } = diagnose({
    ...evidence,
    observations: [
      ...evidence.observations,
      {
        kind: 'tdc-lift',
        method: 'lift-at-tdc',
        entry: 'z',
        round: 'z',
        view: 'lift-at-tdc intake',
        valve: 'intake',
        atValve: false,
        lift: 0,
        past: 0,
        zero: 'zero',
        step: 0.5,
      },
    ],
  });
  expect(named.map(({ fault }) => fault)).toContain('other-tdc');
});

test('one lift of the other lobe is no exchange of valves: what the card prints of it speaks for neither', () => {
  let peaks = 0;
  for (let seed = 1; seed <= 40; seed += 1) {
    const { evidence } = measureSomeCam(makeRandom(seed), { thorough: true, cams: 'single' });
    const lone = evidence.observations.filter(({ valve, kind }) => valve === 'intake' || kind === 'peak-lift');
    peaks += lone.filter(({ valve }) => valve === 'exhaust').length;
    const { named } = diagnose({ ...evidence, observations: lone });
    expect(named.map(({ fault }) => fault)).not.toContain('valves-exchanged');
  }
  expect(peaks).toBe(40);
});
