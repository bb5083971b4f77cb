/** What never ends is ended after this; what is slow beside a load is not wrong. No check waits for the clock, so this costs nothing where all is well. */
jest.setTimeout(300_000);
