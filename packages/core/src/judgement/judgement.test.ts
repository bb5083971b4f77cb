import { FAMILIES } from './ground-lobe';
import { MISHAPS, SCENARIOS, tally } from './tally';

/**
 * A seeded sample of `npm run judgement`: healthy engines whose lobes, cards and readers owe nothing to the model that judges them. Bounds are those that a
 * sample of this size keeps when the whole table does.
 */
const COUNT = 60;

describe.each(SCENARIOS.map((scenario) => [scenario.name, scenario] as const))('%s', (name, scenario) => {
  test.each([
    ['nose', 1],
    ['event', 0.5],
    ['nose', 0.25],
  ] as const)('healthy engines, card of the %s, read to %s°: covered, and hardly ever accused', (convention, step) => {
    const seed = 1000 * SCENARIOS.indexOf(scenario) + 100 * step;
    const found = tally({ scenario, convention, step, families: FAMILIES, count: COUNT, seed });
    expect([name, found.coveredOwn >= 0.86]).toEqual([name, true]);
    expect([name, found.accused <= 0.04]).toEqual([name, true]);
    // Wide is honest, useless is not.
    expect([name, found.width <= 1.3]).toEqual([name, true]);
    // Of sixty jobs a third either way is chance.
    expect([name, found.rms <= 1.35 * found.rmsPlain]).toEqual([name, true]);
  });
});

test.each(
  // What no reading can show without the closing check is left to the table.
  MISHAPS.filter(
    ({ name, scenario }) =>
      scenario.closing ||
      /between|bleed|from 90|unit/.test(name) ||
      (scenario.name.startsWith('both lobes') && !name.includes('first pair')),
  ).map((each) => [each.name, each.scenario.name, each] as const),
)('%s (%s): named, not moved by', (name, _job, { scenario, mishap, is }) => {
  const how = { convention: 'nose', step: 0.5, families: FAMILIES, count: COUNT, seed: 5 } as const;
  const found = tally({ ...how, scenario, mishap, is });
  // Slack in one flank of a pair hardly shows: the nose may as well be that much wider.
  expect([name, found.named >= (name.includes('backwards') ? 0.5 : 0.85)]).toEqual([name, true]);
  expect([name, found.wrong <= 0.05]).toEqual([name, true]);
});
