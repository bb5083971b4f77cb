import { measureSomeCam } from '../simulation/measured-cam';
import { makeRandom } from '../statistics/random';
import { PRIOR, layOut } from './unknowns';

test.each([false, true])(
  'where the card’s own figures lie far apart nothing is believed of the lean, of its lobe as of another’s (another: %p)',
  (loose) => {
    const { evidence } = measureSomeCam(makeRandom(5));
    const valve = evidence.observations[0]?.valve ?? 'intake';
    const leanOf = (leanUnknown: (typeof evidence)['leanUnknown']) =>
      layOut({ ...evidence, leanUnknown }, evidence.observations, null, loose).unknowns.find(
        (each) => each.name === 'lean' && each.valve === valve,
      );
    expect(leanOf([valve])?.standard).toBe(PRIOR.lean.unknown);
    expect(leanOf([])?.standard).toBe(PRIOR.lean.standard);
  },
);
