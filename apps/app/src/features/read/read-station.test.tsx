import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { PHONE, WIDE, openStation } from '@/testing/open-station';
import { ReadStation } from './read-station';

const sentence = (): string => String(screen.getByTestId('sentence').props.children);

function proved() {
  const job = book();
  const setting = job.proved();
  job.card();
  return { job, setting };
}

test('a pair is read, recorded with what it leans on, and told as a centreline', async () => {
  const { job, setting } = proved();
  const here = await openStation('read', ReadStation, job.entries);
  expect(sentence()).toMatch(/^Zero the indicator at peak lift of the intake\. .* 0\.050 in before peak/);
  await here.reads('66', 'after');
  expect(here.last()?.body).toMatchObject({
    setting,
    trial: job.trial,
    valve: 'intake',
    shows: { kind: 'below-peak', flank: 'opening', drop: 1.27 },
    approach: 'forward',
  });
  await here.reads('153', 'after');
  expect(sentence()).toMatch(/109\.50° ATDC/);
  await here.press('other-valve');
  expect(sentence()).toMatch(/peak lift of the exhaust/);
});

test('a wheel with two rings: the numbers are chosen by one tap, for each method by itself, and typed as they stand', async () => {
  const { job } = proved();
  const [first] = job.entries;
  if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
  job.write('build.described', { ...first.body, replaces: first.id, rings: [{ ring: '0-90' }] });
  const here = await openStation('read', ReadStation, job.entries);
  await here.reads('66', 'after');
  await here.reads('153', 'after');
  await here.press('choose-method');
  await here.press('read-events');
  await here.press('method-go');
  await here.press('other-ring');
  await here.reads('22', 'before-tdc');
  await here.reads('55', 'after-bdc');
  expect(here.last()?.body).toMatchObject({ wheel: { ring: '0-90', shows: 55, side: 'after-bdc' } });
  expect(sentence()).toMatch(/IVO 22.* IVC 55/);
  expect(here.report().problems).toEqual([]);
  // Centrelines are still read on the ring that they were read on before.
  await here.press('again');
  await here.press('choose-method');
  await here.press('read-centreline');
  await here.press('method-go');
  await here.reads('66', 'after');
  expect(here.last()?.body).toMatchObject({ wheel: { ring: '0-180', shows: 66 } });
});

test('read first on the closing side, the opening side is asked for without zeroing again', async () => {
  const { job, setting } = proved();
  const round = '00000000-0000-4000-8000-00000000abcd';
  job.reading(setting, round, 'closing', 153);
  await openStation('read', ReadStation, job.entries);
  expect(sentence()).toBe('The other side: back up well past, come forward to 0.050 in before peak. Read the wheel.');
});

test('on an engine that must not be turned back nothing is asked to be backed up', async () => {
  const { job } = proved();
  job.stands({ drive: 'belt', oneWay: true });
  await openStation('read', ReadStation, job.entries);
  expect(screen.getByTestId('one-way')).toHaveTextContent(/go on instead: two full turns/);
  expect(screen.queryByTestId('came-back')).toBeNull();
});

test('an overshot reading is kept for the slack alone, and the side stays open', async () => {
  const { job } = proved();
  const here = await openStation('read', ReadStation, job.entries);
  await here.press('came-back');
  await here.reads('66', 'after');
  expect(here.last()?.body).toMatchObject({ approach: 'backward' });
  expect(screen.getByTestId('aside')).toHaveTextContent(/A reading was taken turning backwards\./);
  expect(sentence()).toMatch(/before peak/);
});

test('a drop as high as the lobe is refused before anything is recorded', async () => {
  const { job } = proved();
  const here = await openStation('read', ReadStation, job.entries);
  await here.type('drop', '400');
  const before = here.entries().length;
  await here.reads('66', 'after');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/0\.400 in is not less than the whole lobe lift, 0\.330 in on the card/);
});

test('two exchanged readings are named with what to do, and both stay in the logbook', async () => {
  const { job, setting } = proved();
  job.pair(setting, 153, 66);
  const here = await openStation('read', ReadStation, job.entries);
  expect(screen.getByTestId('trouble')).toHaveTextContent(/Most likely the two readings are exchanged/);
  expect(here.report().trials[0]?.rounds[0]?.readings).toHaveLength(2);
});

test('on a wheel that is not proved it warns, and does not hinder', async () => {
  const job = book();
  job.card();
  const here = await openStation('read', ReadStation, job.entries);
  expect(here.words()).toMatch(/TDC is not proved on this wheel\./);
  await here.reads('66', 'after');
  expect(here.last()?.kind).toBe('reading.taken');
});

test('a zero that fell is said where the readings are taken', async () => {
  const { job, setting } = proved();
  job.write('zero.disturbed', { setting, what: 'pointer', keeps: [] });
  const here = await openStation('read', ReadStation, job.entries);
  expect(here.words()).toMatch(/TDC is no longer valid/);
});

test('the second bank is measured at its own cylinder, and the head of the screen says which', async () => {
  const { job } = proved();
  const described = job.entries.find(({ kind }) => kind === 'build.described');
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  job.write('build.described', {
    ...described.body,
    replaces: described.id,
    engine: { ...described.body.engine, cams: 'twin', secondBank: 4 },
  });
  const here = await openStation('read', ReadStation, job.entries);
  expect(here.words()).toMatch(/cyl 1 · trial 1/);
  await here.press('other-bank');
  expect(here.words()).toMatch(/cyl 4 · trial 1/);
  await here.reads('66', 'after');
  expect(here.last()?.body).toMatchObject({ cylinder: 4 });
});

test('with the indicator alone, a lift is typed in the unit of the build and recorded without a wheel', async () => {
  const { job } = proved();
  const here = await openStation('read', ReadStation, job.entries);
  await here.press('choose-method');
  await here.press('read-identity');
  await here.press('method-go');
  for (const key of ['3', '3', '0']) await here.press(`key-${key}`);
  expect(here.words()).toMatch(/^0\.330 in$/m);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({
    method: 'identity',
    shows: { kind: 'peak-lift', lift: 8.382 },
    wheel: null,
  });
});

test('by the keyboard of a bench alone: figure, side, Enter; Undo; on to the verdict', async () => {
  const { job } = proved();
  const here = await openStation('read', ReadStation, job.entries, { size: WIDE });
  await here.type('reading', '66');
  await here.keys('a', 'Enter');
  await here.type('reading', '153');
  await here.keys('a', 'Enter');
  expect(sentence()).toMatch(/109\.50° ATDC/);
  await here.keys('u');
  expect(here.report().trials[0]?.rounds[0]?.lacking).toBe(1);
  await here.keys('n');
  expect(here.went().at(-1)).toMatch(/\/decide$/);
});

/** A pair was read, and the contact of the proof is asked for again. */
async function atClosingCheck() {
  const { job, setting } = proved();
  const here = await openStation('read', ReadStation, job.entries);
  await here.reads('66', 'after');
  await here.reads('153', 'after');
  await here.press('closing');
  return { here, setting };
}

test('the closing check hides what it expects, and goes on by itself where nothing has moved', async () => {
  const { here, setting } = await atClosingCheck();
  expect(here.words()).not.toMatch(/23/);
  await here.reads('23¾', 'before');
  expect(here.last()?.body).toMatchObject({ closing: true, setting });
  expect(here.went().at(-1)).toMatch(/\/decide$/);
});

test('a tablet that is turned in the middle of the closing check is still at it, and covers the sheet beside it', async () => {
  const { here } = await atClosingCheck();
  const asked = sentence();
  await here.become(WIDE);
  expect(sentence()).toBe(asked);
  // The sheet stands beside it now, without the contact that is asked for blind.
  expect(here.words()).toMatch(/^Sheet$/m);
  expect(here.words()).not.toMatch(/23¾/);
  await here.become(PHONE);
  expect(sentence()).toBe(asked);
});

test('a closing check that shows a move stops, and says what to do', async () => {
  const { here } = await atClosingCheck();
  await here.reads('27', 'before');
  expect(here.went()).toEqual([]);
  expect(here.words()).toMatch(/Something has moved\.[\s\S]*came 3\.3° from where it was[\s\S]*Do not move the cam/);
});
