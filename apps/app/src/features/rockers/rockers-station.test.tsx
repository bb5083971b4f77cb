import { act, fireEvent, screen } from '@testing-library/react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import { book } from '@yosoku/core/testing/book';
import { WIDE, openStation } from '@/testing/open-station';
import { RockersStation } from './rockers-station';

jest.mock('@/photos/use-picture', () => ({ usePicture: () => ({ state: 'here', address: 'blob:tip' }) }));

/** An engine of which lobe and ratio are known. */
function known() {
  const job = book();
  const lobe = { centreline: 108, lobeLift: 8, ratio: 1.5 };
  job.write('card.entered', { replaces: null, intake: lobe, exhaust: lobe });
  return job;
}

function mounted() {
  const job = known();
  job.write('rockers.set-up', { replaces: null, mounted: 'stud', arm: 36, tip: 8 });
  return job;
}

test('first how they are mounted: nothing said is refused where it is missing, a step of 0 in words', async () => {
  const here = await openStation('rockers', RockersStation, known().entries);
  const before = here.entries().length;
  await here.press('rockers-keep');
  expect(here.words()).toMatch(/Say what they stand on\.[^]*Measure the arm/);
  await here.choose('rockers-mounted', 'Stud');
  await here.type('rockers-arm', '36 mm');
  await here.type('rockers-step', '0');
  await here.press('rockers-keep');
  expect(here.words()).toMatch(/More than 0, or nothing\./);
  expect(here.entries()).toHaveLength(before);
  await here.type('rockers-step', '0.050');
  await here.press('rockers-keep');
  expect(here.last()).toMatchObject({
    kind: 'rockers.set-up',
    body: { mounted: 'stud', arm: expect.closeTo(36, 6), step: expect.closeTo(1.27, 6) },
  });
});

test('a trial, the next length, and the picture in words; wider than the tip is refused', async () => {
  const here = await openStation('rockers', RockersStation, mounted().entries, { size: WIDE });
  expect(screen.getByTestId('sentence')).toHaveTextContent(/try an adjustable pushrod/);
  await here.type('trial-length-intake', '7.900');
  await here.type('trial-pattern-intake', '9 mm');
  const before = here.entries().length;
  await here.press('trial-keep-intake');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/Wider than the tip/);
  await here.type('trial-pattern-intake', '1.3 mm');
  await here.choose('trial-seen-intake', 'Roller still above');
  await here.type('trial-offset-intake', '-0.4 mm');
  await here.press('trial-keep-intake');
  expect(here.last()?.body).toMatchObject({
    valve: 'intake',
    length: expect.closeTo(200.66, 6),
    pattern: expect.closeTo(1.3, 6),
    offset: expect.closeTo(-0.4, 6),
    seen: 'above',
  });
  expect(screen.getByTestId('sentence')).toHaveTextContent(/^Intake: try 8\.\d+ in next\.$/);
  expect(screen.getByTestId('rocker-picture').props['aria-label']).toMatch(/The right length by all trials/);
});

test('the order line: measured, with which lifter, to the step; a preload past the plunger’s travel is refused', async () => {
  const job = mounted();
  job.write('rocker.tried', { valve: 'intake', cylinder: 1, length: 206, pattern: 0.55, seen: 'right', lift: 11.9 });
  const here = await openStation('rockers', RockersStation, job.entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent(/this geometry is right/);
  await here.type('pushrod-length-intake', '8.112');
  await here.type('pushrod-preload-intake', '40');
  await here.type('pushrod-travel-intake', '30');
  await here.choose('pushrod-lifter-intake', 'The one that will run');
  const before = here.entries().length;
  await here.press('pushrod-keep-intake');
  expect(here.words()).toMatch(/Deeper than the plunger travels/);
  expect(here.entries()).toHaveLength(before);
  await here.type('pushrod-travel-intake', '150');
  await here.press('pushrod-keep-intake');
  expect(screen.getByTestId('pushrod-words-intake')).toHaveTextContent(
    /^Intake pushrods: order 8\.152 in\. Measured 8\.112 in/,
  );
  expect(screen.getByTestId('sentence')).toHaveTextContent(/^Exhaust: try/);
});

test('what was entered stands there again when it is corrected', async () => {
  const job = mounted();
  const entered = {
    valve: 'intake',
    length: 206,
    lifter: 'made-solid',
    preload: 0.8,
    travel: 4,
    clears: true,
  } as const;
  job.write('pushrod.measured', { replaces: null, ...entered });
  const here = await openStation('rockers', RockersStation, job.entries);
  await here.press('trial-more-intake');
  await here.type('pushrod-length-intake', '206.5 mm');
  await here.press('pushrod-keep-intake');
  expect(here.last()?.body).toMatchObject({
    ...entered,
    length: expect.closeTo(206.5, 6),
    preload: expect.closeTo(0.8, 2),
    travel: expect.closeTo(4, 2),
  });
});

test('the pattern measured on a photo of the tip: four touches, and the record says where they were', async () => {
  const job = mounted();
  const picture = 'c'.repeat(64);
  job.write('photo.taken', { picture, width: 1200, height: 800, bytes: 9, shows: 'tip', of: null, words: 'First' });
  const here = await openStation('rockers', RockersStation, job.entries);
  await here.press('pattern-more-intake');
  await here.choose('pattern-which-intake', '1: First');
  expect(screen.getByTestId('pattern-ask-intake')).toHaveTextContent(/edge of the tip that lies toward the pivot/);
  // Shown at a scale of its own: whatever it is, both lengths share it. The tip is 8 mm across.
  const touch = async (x: number): Promise<void> => {
    const at = { nativeEvent: { clientX: x, clientY: 50, offsetX: x, offsetY: 50 } };
    await act(async () => void fireEvent(screen.getByTestId('photo-marks'), 'pointerDown', at));
    await act(async () => void fireEvent(screen.getByTestId('photo-marks'), 'pointerUp', at));
  };
  for (const x of [20, 220, 90]) await touch(x);
  // A finger that slid was scrolling.
  const from = { nativeEvent: { clientX: 10, clientY: 10, offsetX: 10, offsetY: 10 } };
  const to = { nativeEvent: { clientX: 60, clientY: 10, offsetX: 60, offsetY: 10 } };
  await act(async () => void fireEvent(screen.getByTestId('photo-marks'), 'pointerDown', from));
  await act(async () => void fireEvent(screen.getByTestId('photo-marks'), 'pointerUp', to));
  await touch(80);
  expect(screen.getByTestId('pattern-ask-intake')).toHaveTextContent(/the other way round/);
  await here.press('mark-back-intake');
  await touch(130);
  await here.press('pattern-use-intake');
  await here.type('trial-length-intake', '206 mm');
  await here.press('trial-keep-intake');
  expect(here.last()?.body).toMatchObject({
    pattern: expect.closeTo(1.6, 1),
    offset: expect.closeTo(-0.4, 1),
    onPhoto: { picture, marks: expect.any(Array) },
  });
  expect(here.words()).toMatch(/on a photo/);
});

test('keys alone mark the photo: arrows move a cross from its middle, finely with Shift, and Enter puts a mark there', async () => {
  const job = mounted();
  const photo = { picture: 'd'.repeat(64), width: 1200, height: 800, bytes: 9 } as const;
  job.write('photo.taken', { ...photo, shows: 'tip', of: null, words: 'Tip' });
  const here = await openStation('rockers', RockersStation, job.entries);
  await here.press('pattern-more-intake');
  await here.choose('pattern-which-intake', '1: Tip');
  const key = async (name: string, times = 1, shiftKey = false): Promise<void> => {
    for (let time = 0; time < times; time += 1) {
      const event = { key: name, shiftKey, preventDefault: () => undefined };
      await act(async () => void fireEvent(screen.getByTestId('photo-marks'), 'keyDown', event));
    }
  };
  expect(screen.queryByTestId('photo-keys')).toBeNull();
  // Beyond the edge of the photo there is nothing to mark.
  await key('ArrowUp', 100);
  // From the middle ten steps out: one edge of a tip of 8 mm, and 20 steps back the other.
  await key('ArrowLeft', 10);
  expect(screen.getByTestId('photo-keys')).toHaveTextContent(/Enter marks/);
  await key('Enter');
  await key('ArrowRight', 20);
  await key(' ');
  // The pattern: from 4 steps and 10 fine ones left of that edge to 5 more.
  await key('ArrowLeft', 10);
  await key('ArrowLeft', 10, true);
  await key('Enter');
  await key('ArrowRight', 5);
  await key('Enter');
  await here.press('pattern-use-intake');
  await here.type('trial-length-intake', '206 mm');
  await here.press('trial-keep-intake');
  // 50 of the 200 pixels of the tip; its middle lies 15 of them outward of the tip’s.
  expect(here.last()?.body).toMatchObject({ pattern: expect.closeTo(2, 1), offset: expect.closeTo(0.6, 1) });
  const { onPhoto } = here.last()?.body as BodyOf<'rocker.tried'>;
  expect(onPhoto?.marks.map(([, y]) => y)).toEqual([0, 0, 0, 0]);
});

test('a signed build shows what was ordered and takes nothing', async () => {
  const job = mounted();
  job.write('pushrod.measured', { replaces: null, valve: 'intake', length: 200, lifter: 'own', preload: 0 });
  job.write('build.signed', { after: null, name: 'Mara Quill' });
  const here = await openStation('rockers', RockersStation, job.entries);
  expect(screen.getByTestId('pushrod-words-intake')).toBeTruthy();
  expect(screen.queryByTestId('trial-keep-exhaust')).toBeNull();
  expect(here.words()).toMatch(/Mara Quill/);
});
