/**
 * The first test of a run waits until everything that it draws has been translated, and behind browsers that goes slowly. What never ends is ended after this; no
 * check waits for the clock, so it costs nothing where all is well.
 */
jest.setTimeout(300_000);
