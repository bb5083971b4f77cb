import { eq } from 'drizzle-orm';
import { pairing } from '../db/schema';
import { addShop, client, openApi, signedIn } from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

interface Begun {
  readonly id: string;
  readonly token: string;
}

async function bench() {
  const { signInName } = await addShop(opened.database);
  const at = await signedIn(opened.api, signInName);
  const begin = async (): Promise<Begun> =>
    (await at.post('/pairings', { at: '/builds/0198/read' })).json as unknown as Begun;
  return { at, begin };
}
const phone = () => client(opened.api);
const claim = (token: string) => phone().post('/pairings/claim', { token });

test('a phone is let in by its builder, once, at the page that the bench has open', async () => {
  const { at, begin } = await bench();
  const { id, token } = await begin();
  expect((await at.get(`/pairings/${id}`)).json).toMatchObject({ state: 'open' });
  const claimed = await claim(token);
  expect(claimed.json).toMatchObject({ shopName: 'Test shop', builderName: 'Test builder' });
  const { secret, figure } = claimed.json as { secret: string; figure: string };
  // Both screens show the same figure, and nothing is open before the bench has said so.
  expect((await at.get(`/pairings/${id}`)).json).toMatchObject({ state: 'claimed', figure });
  const waiting = await phone().post('/pairings/finish', { secret });
  expect(waiting.json).toEqual({ at: null });
  expect(waiting.setCookie).toBe('');
  await at.post(`/pairings/${id}/confirm`, { name: 'Phone of the bay' });
  const done = await phone().post('/pairings/finish', { secret });
  expect(done.json).toEqual({ at: '/builds/0198/read' });
  const mine = client(opened.api, done.setCookie.split(';')[0] ?? '');
  expect((await mine.get('/session')).json).toMatchObject({ builderName: 'Test builder' });
  expect((await at.get(`/pairings/${id}`)).json).toMatchObject({ state: 'gone' });
  const { sessions } = (await at.get('/sessions')).json as { sessions: { name: string | null; id: string }[] };
  const named = sessions.find(({ name }) => name === 'Phone of the bay');
  // And it can be shut out again.
  await at.del(`/sessions/${named?.id}`);
  expect((await mine.get('/session')).status).toBe(401);
  for (const again of [await claim(token), await phone().post('/pairings/finish', { secret })])
    expect(again.status).toBe(410);
});

test('a code is of one use: of two phones that come at once one is turned away', async () => {
  const { begin } = await bench();
  const { token } = await begin();
  const both = await Promise.all([claim(token), claim(token)]);
  expect(both.map(({ status }) => status).sort()).toEqual([201, 410]);
  expect((await claim('made up')).status).toBe(410);
});

test('after two minutes a code is over, claimed or not; a new one takes the place of the last', async () => {
  const { at, begin } = await bench();
  const first = await begin();
  const second = await begin();
  expect((await claim(first.token)).status).toBe(410);
  const { secret } = (await claim(second.token)).json as { secret: string };
  await opened.database.db
    .update(pairing)
    .set({ until: new Date(Date.now() - 1) })
    .where(eq(pairing.id, second.id));
  expect((await at.get(`/pairings/${second.id}`)).json).toMatchObject({ state: 'over' });
  expect((await at.post(`/pairings/${second.id}/confirm`, { name: '' })).status).toBe(410);
  expect((await phone().post('/pairings/finish', { secret })).status).toBe(410);
});

test('nobody confirms the phone of another, nor before a phone is there; a place is of this site', async () => {
  const [mine, other] = [await bench(), await bench()];
  const { id, token } = await mine.begin();
  expect((await mine.at.post(`/pairings/${id}/confirm`, { name: '' })).status).toBe(410);
  await claim(token);
  expect((await other.at.post(`/pairings/${id}/confirm`, { name: '' })).status).toBe(410);
  expect((await other.at.get(`/pairings/${id}`)).json).toMatchObject({ state: 'gone' });
  expect((await mine.at.post('/pairings', { at: '//elsewhere.example' })).status).toBe(422);
  expect((await mine.at.post('/pairings', { at: 'https://elsewhere.example' })).status).toBe(422);
});
