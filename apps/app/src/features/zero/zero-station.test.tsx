import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { WIDE, openStation } from '@/testing/open-station';
import { ZeroStation } from './zero-station';

const sentence = (): string => String(screen.getByTestId('sentence').props.children);

test('from nothing to a proved TDC, by the keypad of a phone', async () => {
  const job = book();
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(sentence()).toBe('Turn it the way it runs, gently, until the piston meets the stop. Read the wheel.');
  await here.reads('21', 'before');
  expect(sentence()).toBe('Turn it backwards, gently, until the piston meets the stop. Read the wheel.');
  await here.reads('26½', 'after');
  expect(sentence()).toBe('Slip the wheel 2¾° counter-clockwise, against the way it runs.');
  expect(here.words()).toMatch(/Instead of that you can:\nMove the pointer.*\nHold the crank/);
  await here.pressText('It is set: now prove it');
  expect(sentence()).toMatch(/^Now prove it\. Turn it the way it runs/);
  await here.reads('23¾', 'before');
  await here.reads('23¾', 'after');
  expect(sentence()).toMatch(/^TDC is proved, good to ±0\.\d+°\. Take the stop out/);
  expect(here.report().zero.state).toBe('proved');
});

test('what is half typed is refused with what is missing, and not lost', async () => {
  const here = await openStation('zero', ZeroStation, book().entries);
  const before = here.entries().length;
  await here.press('record');
  expect(screen.getByTestId('reading-trouble')).toHaveTextContent(/type the degrees under the pointer/);
  await here.press('key-2');
  await here.press('record');
  expect(screen.getByTestId('reading-trouble')).toHaveTextContent('Say which side: before or after.');
  await here.press('side-before');
  await here.press('record');
  expect(here.entries()).toHaveLength(before + 1);
  expect(here.last()?.body).toMatchObject({ side: 'before', wheel: { shows: 2, side: 'before' } });
});

test('two contacts that are exchanged are named, and put right by one press', async () => {
  const job = book();
  job.pass(null, 26.5, -21);
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(here.words()).toMatch(/Most likely the two are exchanged/);
  await here.press('exchange');
  expect(here.report().zero.state).toBe('found');
  expect(sentence()).toMatch(/^Slip the wheel/);
});

test('a proof that fails says by how much, and what to do', async () => {
  const job = book();
  job.pass(null, -21, 26.5);
  job.pass(job.set(), -23, 24.5);
  await openStation('zero', ZeroStation, job.entries);
  expect(sentence()).toMatch(/^Not proved: the sides differ by 1\.5°, the limit is ½°\. Slip the wheel ¾°/);
});

test('a wheel that was disturbed takes TDC with it, and the search begins again', async () => {
  const job = book();
  const setting = job.proved();
  job.write('zero.disturbed', { setting, what: 'wheel', keeps: [] });
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(here.words()).toMatch(/TDC is no longer valid: the wheel was disturbed\./);
  expect(here.words()).toMatch(/Begin with it/);
  await here.pressText('Begin with it');
  expect(here.last()).toMatchObject({ kind: 'zero.begun', body: { after: job.zero } });
});

test('by the indicator: the sentence names the figure that is typed, and nothing is recorded without one', async () => {
  const job = book();
  job.write('zero.begun', { after: job.zero, method: 'equal-drop', cylinder: 1 });
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(sentence()).toMatch(/stop at 0\.\d+ in below the top/);
  await here.type('figure', '');
  expect(sentence()).toMatch(/stop at the figure below the top/);
  const before = here.entries().length;
  await here.reads('20', 'before');
  expect(here.entries()).toHaveLength(before);
  expect(screen.getByTestId('reading-trouble')).toHaveTextContent('Type the indicator’s figure first.');
  await here.type('figure', '100');
  expect(sentence()).toBe('Turn it the way it runs and stop at 0.100 in below the top, on the way up. Read the wheel.');
});

test('the keyboard of a bench alone records, undoes and goes on', async () => {
  const job = book();
  job.pass(null, -21, 26.5);
  job.set();
  const here = await openStation('zero', ZeroStation, job.entries, { size: WIDE });
  await here.type('reading', '23.75');
  await here.keys('b', 'Enter');
  expect(here.last()?.body).toMatchObject({ side: 'before', wheel: { shows: 23.75 } });
  await here.keys('u');
  expect(here.last()?.kind).toBe('entry.voided');
  await here.type('reading', '23.75');
  await here.keys('b', 'Enter');
  await here.type('reading', '23.75');
  await here.keys('a', 'Enter');
  expect(here.report().zero.state).toBe('proved');
  await here.keys('n');
  expect(here.went().at(-1)).toMatch(/\/(card|read)$/);
});

test('a signed build takes no reading until it is opened again with a reason', async () => {
  const job = book();
  job.pass(null, -21, 26.5);
  job.write('build.signed', { after: null, name: 'Mara' });
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(screen.queryByTestId('record')).toBeNull();
  expect(screen.getByTestId('closed')).toHaveTextContent(/Signed by Mara on .*, and closed\./);
  await here.press('reopen');
  await here.press('reopen');
  expect(here.words()).toMatch(/Say why: it stands on the sheet\./);
  await here.type('reopen-reason', 'Wheel had slipped');
  await here.press('reopen');
  expect(here.last()).toMatchObject({ kind: 'build.reopened', body: { reason: 'Wheel had slipped' } });
});

test('without a network it says so, and how much is not sent yet', async () => {
  const here = await openStation('zero', ZeroStation, book().entries, { offline: true });
  expect(screen.getByTestId('sync-sign')).toHaveTextContent('Saved · working offline');
  await here.reads('21', 'before');
  expect(screen.getByTestId('sync-sign')).toHaveTextContent('1 not sent yet · working offline');
});

test('the rule of the shop proposes the method, but not on an engine to practise on, that has a stop and no more', async () => {
  const [described] = book().entries;
  if (described?.kind !== 'build.described') throw new Error('a book says first what engine it is');
  const account = { zeroRule: 'equal-drop' } as const;
  const stands = {
    replaces: null,
    head: 'off',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'solid',
    drive: 'chain',
  } as const;
  const proposed = async (practice: boolean): Promise<string> => {
    const job = book();
    job.write('engine.as-it-stands', stands);
    const [, ...rest] = job.entries.filter(({ kind }) => kind !== 'zero.begun');
    const first = { ...described, body: { ...described.body, ...(practice ? { practice: true as const } : {}) } };
    const here = await openStation('zero', ZeroStation, [first, ...rest], { account });
    const name = String(screen.getByTestId('method').props.children);
    await here.press('zero-begin');
    expect(here.last()?.body).toMatchObject({ method: practice ? 'positive-stop' : 'equal-drop' });
    screen.unmount();
    return name;
  };
  expect(await proposed(false)).toMatch(/^Equal drop/);
  expect(await proposed(true)).not.toMatch(/^Equal drop/);
});

/** Begins with the engine as it stands, before any method was chosen. */
const freshEngine = () => book().entries.filter(({ kind }) => kind === 'build.described' || kind === 'trial.begun');

test('head on, no plug hole, no wheel: a dropped valve and a tape along the rim', async () => {
  const here = await openStation('zero', ZeroStation, freshEngine());
  await here.choose('at-head', 'On');
  for (const [what, answer] of [
    ['at-plugHole', 'No'],
    ['at-wheel', 'No'],
    ['at-indicator', 'Yes'],
  ] as const)
    await here.choose(what, answer);
  expect(screen.getByTestId('method')).toHaveTextContent('Dropped valve');
  expect(here.words()).toMatch(/Fix a pointer at the rim/);
  await here.press('zero-begin');
  expect(here.words()).toMatch(/Measure the balancer first/);
  await here.type('rim-size', '8');
  await here.press('zero-begin');
  expect(here.last()?.body).toMatchObject({ method: 'dropped-valve', ring: { ring: 'rim', unit: 'in' } });
  expect(sentence()).toMatch(
    /until the piston has moved the valve 0\.005 in\. Make a mark on the rim at the pointer: record 0/,
  );
});

test('a screen that is turned or zoomed is another one: what was said of the engine, and the method that was chosen, stay said', async () => {
  const here = await openStation('zero', ZeroStation, freshEngine());
  await here.choose('at-head', 'On');
  await here.choose('at-indicator', 'Yes');
  await here.press('other-methods');
  await here.press('method-dropped-valve');
  await here.become(WIDE);
  expect(screen.getByTestId('method')).toHaveTextContent('Dropped valve');
  await here.press('zero-begin');
  expect(here.report().prepare.asItStands).toMatchObject({ head: 'on', indicator: true });
  expect(here.last()?.body).toMatchObject({ method: 'dropped-valve' });
});

test('an engine that must not be turned back is offered nothing that turns it back', async () => {
  const here = await openStation('zero', ZeroStation, freshEngine());
  await here.choose('at-indicator', 'Yes');
  await here.choose('at-turnsBack', 'No');
  expect(screen.getByTestId('method')).toHaveTextContent('Equal drop, indicator on the piston');
  await here.press('other-methods');
  expect(here.words()).toMatch(/Positive stop, bar across the bore: has to be turned back/);
  await here.press('zero-begin');
  expect(here.report().prepare.asItStands).toMatchObject({ oneWay: true, indicator: true });
});

test('a valve pushed down by its adjuster: its figure is noted, and has to be come back to', async () => {
  const job = book();
  job.write('zero.begun', { after: job.zero, method: 'pushed-valve', cylinder: 1 });
  const here = await openStation('zero', ZeroStation, job.entries);
  expect(sentence()).toMatch(/^With the valve at its noted figure/);
  const before = here.entries().length;
  await here.reads('20', 'before');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/Type the indicator’s figure first/);
  await here.type('pushed', '200');
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ pushed: 5.08, indicator: 0.127 });
  expect(sentence()).toMatch(/^Back the adjuster off, turn the piston past the top/);
  await here.type('pushed', '203');
  expect(here.words()).toMatch(/Come back to 0\.200 in, coming down to it/);
  await here.type('pushed', '200.5');
  await here.reads('24', 'after');
  expect(here.report().zero.state).toBe('found');
});
