import { crankAngleAtDrop, pistonDrop } from '../crank/slider-crank';
import { closesAsPrinted, opensAsPrinted } from '../cam/card';
import { flanksAt, lobeAt } from '../cam/lobe';
import { entrySchema } from '../record/entry';
import { reportSchema } from '../report/report-schema';
import { book } from '../testing/book';
import { practising } from '../testing/practising';
import { STOP_DEPTH, againstStop, dialZeroed, pistonBelow, room, wheelTurned } from '../simulation/whole-engine';
import { adviceFor } from './coach';
import { EXERCISES, EXERCISE_NAMES } from './exercises';
import { makeScenario } from './make-scenario';
import { PRACTICE_LASH } from './valve-train-made';
import { PRACTICE_SIX, baseOf } from './scenario';

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];

describe('the engine under the hand', () => {
  const scenario = makeScenario('find-tdc', PRACTICE_SIX, 5);
  test('a stop holds the crank where the slider-crank says, both ways, at every turn', () => {
    // Heywood, Internal Combustion Engine Fundamentals, ch. 2: by `pistonDrop`, checked against its closed form in crank.test.ts.
    const job = practising('find-tdc', scenario);
    job.put((stand) => ({ ...stand, stop: STOP_DEPTH }));
    const contact = crankAngleAtDrop(scenario.engine.crank, STOP_DEPTH)?.after ?? 0;
    job.turn(2_000);
    expect(againstStop(scenario.engine, job.stand())).toBe('forward');
    expect(job.stand().crank).toBeCloseTo(-360 - contact, 6);
    job.turn(-2_000);
    expect(againstStop(scenario.engine, job.stand())).toBe('backward');
    expect(job.stand().crank).toBeCloseTo(-720 + contact, 6);
    expect(pistonBelow(scenario.engine, job.stand())).toBeCloseTo(STOP_DEPTH, 6);
    expect(pistonDrop(scenario.engine.crank, contact)).toBeCloseTo(STOP_DEPTH, 9);
    expect(room(scenario.engine, job.stand()).on).toBeCloseTo(360 - 2 * contact, 6);
  });

  test('the needle waits while the slack in the timing drive is taken up, and no longer', () => {
    const worn = makeScenario('slack', PRACTICE_SIX, 3);
    const job = practising('slack', worn);
    const { slack, lobes } = worn.engine;
    job.turn(lobes.intake.nose - worn.advance.intake - 50 - job.stand().crank);
    job.put((stand) => dialZeroed(worn.engine, stand));
    job.turn(-slack);
    expect(job.look().dial).toBeCloseTo(0, 9);
    job.turn(-5);
    const fell = lobeAt(lobes.intake, lobes.intake.nose - 50).lift - lobeAt(lobes.intake, lobes.intake.nose - 55).lift;
    expect(job.look().dial).toBeCloseTo(-fell, 6);
    job.turn(slack);
    expect(job.look().dial).toBeCloseTo(-fell, 6);
    job.turn(5);
    expect(job.look().dial).toBeCloseTo(0, 6);
  });
});

describe('an exercise', () => {
  test.each(EXERCISE_NAMES)('%s opens a logbook that holds, and does not tell its secret', (name) => {
    const scenario = makeScenario(name, PRACTICE_SIX, 11);
    expect(makeScenario(name, PRACTICE_SIX, 11)).toEqual(scenario);
    const job = practising(name, scenario);
    for (const entry of job.entries) expect(entrySchema.safeParse(entry).error?.issues ?? []).toEqual([]);
    const report = reportSchema.parse(job.report());
    expect(report.build.practice).toBe(true);
    expect(report.zero.state).toBe(EXERCISES[name].tdc === 'proved' ? 'proved' : 'none');
    expect(report.card.contradictions).toEqual([]);
    expect(report.drive.parts.length).toBeGreaterThan(0);
  });

  test('TDC found with care is worth everything, wherever the wheel sat', () => {
    for (const seed of SEEDS) {
      const job = practising('find-tdc', makeScenario('find-tdc', PRACTICE_SIX, seed));
      job.findTdc();
      const { score, rows, readings } = job.debrief();
      expect(job.report().zero.state).toBe('proved');
      expect(rows).toMatchObject([{ right: true }]);
      expect(readings.map(({ judgement }) => judgement)).toEqual(Array(4).fill('helped'));
      expect(score).toBe(100);
    }
  });

  test.each(['partner', 'firing'] as const)(
    'valves that are set %s and looked at again are worth everything',
    (order) => {
      for (const seed of [1, 2, 3]) {
        const job = practising('lash-partner', makeScenario('lash-partner', PRACTICE_SIX, seed));
        job.lash(order);
        const { score, rows, readings } = job.debrief();
        expect(rows.map(({ right }) => right)).toEqual([true, true]);
        expect(readings).toHaveLength(24);
        expect(score).toBe(100);
      }
    },
  );

  test('set with the crank somewhere else, valves stand on their lobes: they come out loose, and each is told so', () => {
    const job = practising('lash-partner', makeScenario('lash-partner', PRACTICE_SIX, 4));
    job.lash('firing', 200);
    const { rows, readings, score } = job.debrief();
    expect(rows[0]?.right).toBe(false);
    expect(readings.filter(({ judgement }) => judgement === 'spoiled').length).toBeGreaterThan(0);
    expect(score).toBeLessThan(80);
  });

  test('of the valves one ticks, and the others are right', () => {
    for (const seed of SEEDS) {
      const scenario = makeScenario('loose-valve', PRACTICE_SIX, seed);
      const { loose, gaps } = scenario.engine.lash ?? {};
      const off = Object.entries(gaps ?? {}).filter(([, gap]) => Math.abs(gap - PRACTICE_LASH) > 1e-9);
      expect(off.map(([name]) => name)).toEqual([`${loose?.cylinder} ${loose?.valve}`]);
    }
  });

  test('the right pushrod is found as one is led, in three trials as a rule, and worth everything', () => {
    const counts = SEEDS.map((seed) => {
      const scenario = makeScenario('right-pushrod', PRACTICE_SIX, seed);
      const job = practising('right-pushrod', scenario);
      expect(adviceFor('right-pushrod', scenario, job.stand(), job.report()).sentence).toMatch(/turn it over/);
      const count = job.pushrod();
      const { score, rows, readings } = job.debrief();
      expect(rows[0]).toMatchObject({ right: true });
      expect(readings.filter(({ judgement }) => judgement !== 'helped')).toEqual([]);
      expect(score).toBe(count <= 3 ? 100 : 90);
      expect(adviceFor('right-pushrod', scenario, job.stand(), job.report())).toMatchObject({ at: 'done' });
      return count;
    });
    expect(counts.filter((count) => count <= 3).length).toBeGreaterThanOrEqual(6);
  });

  test('a pattern written down for a length that was never turned over helps nobody', () => {
    const job = practising('right-pushrod', makeScenario('right-pushrod', PRACTICE_SIX, 5));
    job.write('rocker.tried', { valve: 'intake', cylinder: 1, length: 200, pattern: 0.6, seen: 'right' });
    expect(job.debrief().readings).toMatchObject([{ judgement: 'spoiled' }]);
    expect(job.debrief().score).toBeLessThan(50);
  });

  test('the end play is cured by what Prepare says; pulled hard, the needle tells that it is none', () => {
    for (const seed of SEEDS) {
      const scenario = makeScenario('end-play', PRACTICE_SIX, seed);
      const job = practising('end-play', scenario);
      expect(job.endPlay('gentle')).toBeLessThanOrEqual(3);
      expect(job.debrief().score).toBe(100);
      const hasty = practising('end-play', scenario);
      hasty.endPlay('hard');
      expect(hasty.report().prepare.endPlay).toMatchObject({ state: 'unsure' });
      expect(hasty.debrief().score).toBeLessThan(50);
    }
  });

  test('a cam that is read with care is found to within a degree, whatever its error', () => {
    for (const seed of SEEDS) {
      const scenario = makeScenario('centreline', PRACTICE_SIX, seed);
      const job = practising('centreline', scenario);
      job.centreline('intake');
      expect(Math.abs((job.report().verdict.delta ?? 99) - scenario.advance.intake)).toBeLessThan(1);
      expect(job.debrief().score).toBeGreaterThanOrEqual(95);
    }
  });

  test('without a wheel, marks and a tape find TDC and the cam as well as a tape can', () => {
    for (const seed of SEEDS) {
      const scenario = makeScenario('no-wheel', PRACTICE_SIX, seed);
      const job = practising('no-wheel', scenario);
      expect(job.report().prepare.asItStands?.wheel).toBe(false);
      job.findTdcByMarks();
      expect(job.report().zero.state).toBe('proved');
      job.centreline('intake');
      const { score, readings } = job.debrief();
      expect(job.report().problems).toEqual([]);
      expect(readings.map(({ judgement }) => judgement)).toEqual(Array(6).fill('helped'));
      // Half a thirty-second of an inch on this balancer is a quarter of a degree, and three such figures make the answer.
      expect(Math.abs((job.report().verdict.delta ?? 99) - scenario.advance.intake)).toBeLessThan(1.5);
      expect(score).toBeGreaterThanOrEqual(80);
    }
  });

  // The second is a lobe whose events have their middle before its nose.
  test.each([1, -1])('a misprinted card is told by reading the lobe both ways, twice, lean %p', (lean) => {
    const intake = { ...PRACTICE_SIX.lobes.intake, lean };
    const flanks = flanksAt(intake, 1.27) ?? { opening: NaN, closing: NaN };
    const timing = {
      height: 1.27,
      at: 'lobe',
      opens: Math.round(opensAsPrinted('intake', flanks.opening)),
      closes: Math.round(closesAsPrinted('intake', flanks.closing)),
    } as const;
    const base = {
      ...PRACTICE_SIX,
      lobes: { ...PRACTICE_SIX.lobes, intake },
      card: { ...PRACTICE_SIX.card, intake: { ...PRACTICE_SIX.card.intake, timing: [timing] } },
    };
    for (const seed of SEEDS) {
      const scenario = makeScenario('misprint', base, seed);
      const job = practising('misprint', scenario);
      expect(job.report().card.contradictions).toEqual([]);
      const bothWays = (): void => {
        job.centreline('intake');
        job.events('intake');
      };
      bothWays();
      bothWays();
      expect(job.report().verdict.headline).toMatch(
        /most likely the card’s ICL is wrong by about (2\.[5-9]|[34]\.\d)°/,
      );
      job.say('card-figure');
      const { rows, readings, score } = job.debrief();
      expect(rows).toEqual([expect.objectContaining({ what: 'What is wrong', right: true })]);
      expect(readings.filter(({ judgement }) => judgement !== 'helped')).toEqual([]);
      expect(score).toBe(100);
    }
  });

  test('read on the second row of numbers, a reading is as good as on the first, and judged so', () => {
    const scenario = makeScenario('two-rings', PRACTICE_SIX, 6);
    expect(scenario.engine.rings).toEqual([{ ring: '0-90' }]);
    const job = practising('two-rings', scenario);
    job.centreline('intake', false, { ring: '0-90' });
    expect(job.report().problems).toEqual([]);
    expect(Math.abs((job.report().verdict.delta ?? 99) - scenario.advance.intake)).toBeLessThan(1);
    expect(job.debrief().readings.map(({ judgement }) => judgement)).toEqual(['helped', 'helped']);
  });

  test('the worn lobe is found by reading them all as one is led, wherever it is', () => {
    for (const seed of SEEDS) {
      const scenario = makeScenario('worn-lobe', PRACTICE_SIX, seed);
      const job = practising('worn-lobe', scenario);
      job.everyLobe();
      const worn = scenario.engine.others?.worn;
      const { rows, readings, score, told } = job.debrief();
      expect(rows).toEqual([
        expect.objectContaining({ truth: `cylinder ${worn?.cylinder}, ${worn?.valve}`, right: true }),
      ]);
      expect(readings).toHaveLength(12);
      expect(readings.filter(({ judgement }) => judgement !== 'helped')).toEqual([]);
      expect(score).toBe(100);
      expect(told).toMatch(new RegExp(`The ${worn?.valve} lobe of cylinder ${worn?.cylinder} had lost 0\\.0\\d\\d in`));
    }
  });

  test('zeroed anywhere but on the base circle, lifts are told as what they are, and cost', () => {
    const job = practising('worn-lobe', makeScenario('worn-lobe', PRACTICE_SIX, 3));
    job.everyLobe(true);
    const { readings, score } = job.debrief();
    expect(readings.some(({ words }) => /not been zeroed on the base circle/.test(words))).toBe(true);
    expect(score).toBeLessThan(100);
  });

  test('a reading from the wrong side is named, with the slack that stands in it, and costs', () => {
    const scenario = makeScenario('slack', PRACTICE_SIX, 3);
    const job = practising('slack', scenario);
    job.centreline('intake', true);
    const { readings, score } = job.debrief();
    const careful = practising('slack', scenario);
    careful.centreline('intake');
    expect(readings[0]).toMatchObject({ judgement: 'wrong-side' });
    expect(readings[0]?.words).toContain(`${scenario.engine.slack}`);
    expect(readings[1]).toMatchObject({ judgement: 'helped' });
    expect(score).toBeLessThan((careful.debrief().score ?? 0) - 30);
  });

  test('a misread wheel, a reading away from the stop and one after the wheel slipped are told apart', () => {
    const job = practising('find-tdc', makeScenario('find-tdc', PRACTICE_SIX, 2));
    job.findTdc();
    job.put((stand) => wheelTurned(stand, 3));
    const zero = job.report().zero;
    job.write('zero.reading', {
      zero: zero.id ?? '',
      setting: zero.setting,
      pass: zero.id ?? '',
      side: 'before',
      wheel: job.look().wheel,
    });
    expect(job.debrief().readings.at(-1)).toMatchObject({
      judgement: 'misread',
      words: expect.stringMatching(/did not stand against/) as string,
    });

    const slipping = practising('slipping', makeScenario('slipping', PRACTICE_SIX, 4));
    slipping.centreline('intake');
    slipping.turn(720);
    slipping.centreline('exhaust');
    expect(slipping.debrief().readings.map(({ judgement }) => judgement)).toEqual([
      'helped',
      'helped',
      'spoiled',
      'spoiled',
    ]);
    slipping.say('wheel-slipped');
    const right = slipping.debrief().score ?? 0;
    slipping.say('wrong-cam');
    expect(slipping.debrief().score).toBe(right - 80);
    expect(slipping.debrief(2).score).toBe(Math.max(0, right - 90));
  });

  test('a wheel that slips after TDC was proved does not count against the proof', () => {
    const scenario = { ...makeScenario('find-tdc', PRACTICE_SIX, 6) };
    const job = practising('find-tdc', { ...scenario, engine: { ...scenario.engine, slips: { after: 3_000, by: 7 } } });
    job.findTdc();
    job.turn(4_000);
    expect(job.stand().slipped).toBe(true);
    expect(job.debrief().rows).toMatchObject([{ right: true }]);
  });

  test('what is advised leads from the bare engine to the proof', () => {
    const scenario = makeScenario('find-tdc', PRACTICE_SIX, 6);
    const job = practising('find-tdc', scenario);
    const advice = () => adviceFor('find-tdc', scenario, job.stand(), job.report());
    expect(advice()).toMatchObject({ at: 'zero', sentence: expect.stringMatching(/bar across the bore/) as string });
    job.findTdc();
    expect(advice()).toMatchObject({ at: 'done' });
  });
});

test('an engine of the shop is practised on as it is: ring, rotation, card and hardware', () => {
  const job = book({ ring: '0-360', sense: 'falling' }, 'mm');
  job.card(104);
  const base = baseOf(job.report());
  expect(base).toMatchObject({
    name: 'Test six',
    units: 'mm',
    ring: { ring: '0-360', sense: 'falling' },
    engine: { stroke: 88.392, rod: 144.78 },
    card: { intake: { centreline: 104 } },
  });
  const own = practising('centreline', makeScenario('centreline', base, 9));
  own.centreline('intake');
  expect(Math.abs((own.report().verdict.delta ?? 99) - own.stand().advance.intake)).toBeLessThan(1);
});
