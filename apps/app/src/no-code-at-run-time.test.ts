import './no-code-at-run-time';

test('zod makes no code at run time', () => {
  // It comes later than its setting, as in the app.
  const { config } = jest.requireActual<typeof import('zod')>('zod');
  expect(config().jitless).toBe(true);
});
