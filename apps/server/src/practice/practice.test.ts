import { v7 as uuidv7 } from 'uuid';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { makeScenario } from '@yosoku/core/practice/make-scenario';
import { openPractice } from '@yosoku/core/practice/opening';
import { addShop, description, makeEntry, openApi, signedIn } from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

test('a practice never gets among the builds of a shop, by whichever door', async () => {
  const { signInName, builderId } = await addShop(opened.database);
  const asked = await signedIn(opened.api, signInName);
  const buildId = uuidv7();
  const now = '2026-03-14T09:26:53.000Z';
  const practice = openPractice('find-tdc', makeScenario('find-tdc', PRACTICE_SIX, 1), {
    newId: uuidv7,
    buildId,
    builderId,
    now,
  });
  const [opening, ...rest] = practice;
  expect(await asked.post('/builds', { entry: opening })).toMatchObject({
    status: 422,
    json: { detail: expect.stringContaining('made up to practise on') as string },
  });
  expect((await asked.post(`/builds/${buildId}/entries`, { entries: rest })).status).toBe(404);
  const file = { format: 'yosoku-build', version: 1, entries: practice };
  expect((await asked.post('/import', JSON.stringify(file))).status).toBe(422);
  // Nor as a correction of an engine that exists.
  const real = makeEntry('build.described', description(), uuidv7(), builderId);
  expect((await asked.post('/builds', { entry: real })).status).toBe(201);
  const smuggled = makeEntry(
    'build.described',
    { ...description('Changed'), practice: true, replaces: real.id },
    real.buildId,
    builderId,
  );
  expect((await asked.post(`/builds/${real.buildId}/entries`, { entries: [smuggled] })).status).toBe(422);
  const { builds } = (await asked.get('/builds')).json as { builds: { id: string; name: string }[] };
  expect(builds).toMatchObject([{ id: real.buildId, name: 'Test four' }]);
});

test('scores are a builder’s own, and sending one twice keeps it once', async () => {
  const [mine, other] = await Promise.all(
    [1, 2].map(async () => signedIn(opened.api, (await addShop(opened.database)).signInName)),
  );
  const score = { id: uuidv7(), exercise: 'find-tdc', score: 95, hints: 1, doneAt: '2026-03-14T09:26:53.000Z' };
  for (let i = 0; i < 2; i += 1) expect((await mine?.post('/practice/scores', score))?.status).toBe(201);
  expect((await mine?.get('/practice/scores'))?.json).toEqual({ scores: [score] });
  expect((await other?.get('/practice/scores'))?.json).toEqual({ scores: [] });
  for (const wrong of [{ score: 101 }, { exercise: 'nonsense' }, { hints: -1 }])
    expect((await mine?.post('/practice/scores', { ...score, id: uuidv7(), ...wrong }))?.status).toBe(422);
});
