import { inches } from '../units/length';
import { judgeEndPlay } from './end-play';

/** Sums of the trade: wanted less measured is taken off the button, measured less wanted is shimmed. Common practice, no source. */
test.each([
  ['button', '0.003', undefined, 'tight', '0.0045', /Take 0\.005 in off the button for 0\.008 in\./],
  ['button', '0.016', '0.008', 'loose', '-0.008', /Shim the button by 0\.008 in for 0\.008 in\./],
  ['button', '0.0075', undefined, 'inside', '0', /is inside/],
  ['plate', '0.007', undefined, 'loose', '-0.0025', /plate thicker by 0\.003 in/],
  ['plate', '0.002', '0.004', 'tight', '0.002', /Take 0\.002 in off the plate/],
] as const)('%s, %s in of play, wanted %s: %s', (thrust, play, wanted, state, takeOff, words) => {
  const judged = judgeEndPlay(
    { thrust, play: inches(play), wanted: wanted === undefined ? undefined : inches(wanted) },
    'in',
  );
  expect(judged.state).toBe(state);
  expect(judged.takeOff).toBeCloseTo(Number(takeOff) * 25.4, 9);
  expect(judged.words).toMatch(words);
});

test('a play that is not one is not reckoned with: a cover that flexes, a gasket that is not there', () => {
  const play = inches('0.020');
  expect(judgeEndPlay({ thrust: 'button', play, returns: false }, 'in')).toMatchObject({ state: 'unsure', takeOff: 0 });
  expect(judgeEndPlay({ thrust: 'button', play, gasket: false, returns: true }, 'in')).toMatchObject({
    state: 'unsure',
  });
  // A plate has no cover in the way.
  expect(judgeEndPlay({ thrust: 'plate', play, gasket: false }, 'in')).toMatchObject({ state: 'loose' });
});
