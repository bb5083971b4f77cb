/** The first test of a run waits until everything that it draws has been translated. */
jest.setTimeout(60_000);
