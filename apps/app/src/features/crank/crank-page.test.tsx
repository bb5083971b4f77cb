import { waitFor } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { CrankPage } from './crank-page';

test('without stroke and rod the travel of the piston asks for them', async () => {
  const job = book();
  const described = job.entries[0];
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  const { stroke: _stroke, rod: _rod, ...engine } = described.body.engine;
  job.write('build.described', { ...described.body, replaces: described.id, engine });
  const here = await openStation('crank', CrankPage, job.entries);
  expect(here.words()).toMatch(/Stroke and rod are needed for it\./);
});

test('which TDC it is follows from the valves of the cylinder that is looked at', async () => {
  const job = book();
  job.proved();
  const here = await openStation('crank', CrankPage, job.entries);
  expect(here.words()).toMatch(/Which TDC is it\?/);
  job.write('tdc.identified', { replaces: null, looked: 'own', seen: 'rocking' });
  const then = await openStation('crank', CrankPage, job.entries);
  expect(then.words()).toMatch(/cylinder 1 stands at its overlap TDC/);
});

test('a mark that comes too early says what the ignition then really is, and where the new mark goes', async () => {
  const job = book();
  job.proved();
  job.write('mark.checked', { replaces: null, part: 'balancer', round: 540, distance: 3, stands: 'after' });
  const here = await openStation('crank', CrankPage, job.entries);
  expect(here.words()).toMatch(/The balancer mark comes 2\.0° too early: set by it, the ignition is/);
  expect(here.words()).toMatch(/Make the new mark .* along the rim from the old one/);
});

test('the curve of the travel stands against what its piston has really fallen', async () => {
  const job = book();
  const described = job.entries[0];
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  const engine = { ...described.body.engine, stroke: 88, rod: 141 };
  job.write('build.described', { ...described.body, replaces: described.id, engine, units: 'mm' });
  const here = await openStation('crank', CrankPage, job.entries);
  // What stands at the rules from the top down: the library would cut it to whole numbers, and the top would stand beside 0.4.
  await waitFor(() => expect(here.words()).toMatch(/Piston travel\s+0\.0\s+2\.0\s+4\.0\s+6\.0\s+8\.0\s/));
});
