import { checkEntry } from '../record/check-entry';
import { listHeadline } from '../report/list-headline';
import { book, id } from '../testing/book';

/** A cam that sits late, read once; the events last longer than the card says. */
function late() {
  const job = book();
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 21, closes: 55 }] },
  });
  job.pair(setting, 66, 153);
  return { job, setting };
}

const LEAVE = 'mild street cam, plain timing set';
function leave({ job }: ReturnType<typeof late>, more: { replaces?: string | null; reason?: string } = {}): string {
  const { verdict } = job.report();
  return job.write('verdict.accepted', {
    replaces: more.replaces ?? null,
    trial: job.trial,
    of: {
      what: 'place',
      verdict: verdict.kind === 'waiting' ? 'leave' : verdict.kind,
      cams: [{ cam: 'single', bank: 1, delta: verdict.delta ?? 0 }],
    },
    said: verdict.headline,
    reason: more.reason ?? LEAVE,
  });
}
const stateOf = ({ job }: ReturnType<typeof late>, station: string) =>
  job.report().stations.find((each) => each.station === station)?.state;

test('a late cam that is left as it is: the reason stands in place of the open point, the figures stay', () => {
  const it = late();
  const before = it.job.report();
  expect(before.sign.open).toContain(before.verdict.headline);
  leave(it);
  const after = it.job.report();
  expect(after.verdict).toEqual(before.verdict);
  expect(after.sign.open).not.toContain(before.verdict.headline);
  expect(['decide', 'move', 'prove'].map((station) => stateOf(it, station))).toEqual(['done', 'done', 'done']);
  expect(after.move).toMatchObject({ state: 'stay', plans: [] });
  expect(after.proof.sentence).toBe(`${before.verdict.headline} Left as it is: ${LEAVE}`);
  expect(listHeadline(after)).toBe(`${before.verdict.headline} Left as it is: ${LEAVE}`);
  it.job.write('build.signed', { after: null, name: 'Mara Quill' });
  expect(listHeadline(it.job.report())).toBe(
    `Signed by Mara Quill. ${before.verdict.headline} Left as it is: ${LEAVE}`,
  );
  const rows = (title: string) => it.job.report().sheet.find((section) => section.title === title)?.rows ?? [];
  expect(rows('Trial 1').map(({ label }) => label)).toContain(`Left as it is: ${LEAVE}`);
  expect(rows('Sign').map(({ label }) => label)).toContain(`Left as it is: ${LEAVE}`);
});

test('taken back, it is open again; said again, the last reason counts', () => {
  const it = late();
  const first = leave(it);
  const second = leave(it, { replaces: first, reason: 'customer in a hurry' });
  expect(it.job.report().accepted.map(({ reason }) => reason)).toEqual(['customer in a hurry']);
  for (const entry of [first, second]) it.job.write('entry.voided', { voids: entry });
  expect(it.job.report().accepted).toEqual([]);
  expect(stateOf(it, 'decide')).toBe('begun');
});

test('what was accepted was 2.5° late: readings that show another place open it again', () => {
  const it = late();
  leave(it);
  it.job.pair(it.setting, 66.5, 153);
  expect(it.job.report().accepted).toMatchObject([{ stands: true }]);
  for (const { id } of it.job.entries.filter(({ kind }) => kind === 'reading.taken'))
    it.job.write('entry.voided', { voids: id });
  it.job.pair(it.setting, 70, 157);
  const now = it.job.report();
  expect(now.accepted).toMatchObject([{ stands: false }]);
  expect(now.accepted[0]?.words).toMatch(/^It was left as it is when it was “The cam sits 2\.5° late/);
  expect(now.sign.open).toContain(now.verdict.headline);
  expect(listHeadline(now)).toBe(now.verdict.headline);
});

test('what was accepted was a late cam, not a wheel that had slipped: the closing check opens it again', () => {
  const it = late();
  leave(it);
  it.job.write('zero.reading', {
    zero: it.job.zero,
    setting: it.setting,
    pass: id(),
    side: 'before',
    wheel: { ring: '0-180', shows: 20, side: 'before' },
    closing: true,
  });
  const now = it.job.report();
  expect(now.verdict.headline).toMatch(/^Do not move the cam yet/);
  expect(now.accepted).toMatchObject([{ stands: false }]);
  expect(now.sign.open).toContain(now.verdict.headline);
  expect(stateOf(it, 'decide')).toBe('begun');
});

test('the next trial begins without it', () => {
  const it = late();
  leave(it);
  it.job.write('trial.begun', { after: it.job.trial });
  expect(it.job.report().accepted).toEqual([]);
});

test('a duration that is not the card’s is an open point until it is accepted', () => {
  const it = late();
  it.job.round(
    'events',
    'intake',
    [
      { shows: { kind: 'above-base', flank: 'opening', lift: 1.27 }, at: -21 },
      { shows: { kind: 'above-base', flank: 'closing', lift: 1.27 }, at: 180 + 60 },
    ],
    { setting: it.setting },
  );
  const view = it.job.report().trials[0]?.views.find(({ method }) => method === 'events');
  if (!view) throw new Error('the events were read');
  const isOpen = (): boolean => it.job.report().sign.open.some((each) => each.startsWith(view.title));
  expect(view.differs).toBe(true);
  expect(isOpen()).toBe(true);
  it.job.write('verdict.accepted', {
    replaces: null,
    trial: it.job.trial,
    of: { what: 'figure', view: view.key, value: view.value },
    said: view.title,
    reason: 'ground so for this shop',
  });
  expect(isOpen()).toBe(false);
  expect(stateOf(it, 'decide')).toBe('begun');
});

test('an acceptance without a reason is no entry', () => {
  const it = late();
  leave(it);
  const entry = it.job.entries.at(-1);
  expect(checkEntry(entry)).toBeNull();
  expect(checkEntry({ ...entry, body: { ...entry?.body, reason: '  ' } })).toBe(
    'body.reason: the reason must not be empty',
  );
});
