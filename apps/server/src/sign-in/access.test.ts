import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import {
  PASSWORD,
  addShop,
  addTestBuilder,
  client,
  description,
  makeEntry,
  openApi,
  signedIn,
} from '../testing/api-client';
import { signInAttempt } from '../db/schema';
import { letIn } from './accounts';
import { passwordTrouble } from './password-rules';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
// In-process tests share one address: what one of them failed at must not slow the next.
beforeEach(() => opened.database.db.delete(signInAttempt));
afterAll(() => opened.close());

const NEW = 'quite another sentence';
const signIn = (signInName: string, password: string) => client(opened.api).post('/session', { signInName, password });

async function shopOfTwo() {
  const mine = await addShop(opened.database);
  const signInName = `s${mine.signInName}`;
  const id = await addTestBuilder(opened.database, mine.shopId, 'builder', signInName);
  return { ...mine, owner: await signedIn(opened.api, mine.signInName), second: { id, signInName } };
}

describe('one’s own password and sessions', () => {
  test('it is changed against the old one, and signs out everywhere else', async () => {
    const { signInName } = await addShop(opened.database);
    const [here, there] = [await signedIn(opened.api, signInName), await signedIn(opened.api, signInName)];
    expect((await here.put('/session/password', { old: 'not it', password: NEW })).status).toBe(403);
    const poor = await here.put('/session/password', { old: PASSWORD, password: 'aaaaaaaaaaaa' });
    expect(poor).toMatchObject({ status: 422, json: { fields: [{ field: 'password' }] } });
    expect((await there.get('/session')).status).toBe(200);
    expect((await here.put('/session/password', { old: PASSWORD, password: NEW })).status).toBe(200);
    expect((await here.get('/session')).status).toBe(200);
    expect((await there.get('/session')).status).toBe(401);
    expect((await signIn(signInName, PASSWORD)).status).toBe(401);
    expect((await signIn(signInName, NEW)).status).toBe(201);
  });

  test('sessions are listed, and ended singly or all but this one; nobody ends another’s', async () => {
    const { owner, second, signInName } = await shopOfTwo();
    const [phone, tablet] = [await signedIn(opened.api, signInName), await signedIn(opened.api, signInName)];
    const stranger = await signedIn(opened.api, second.signInName);
    const list = async () => (await owner.get('/sessions')).json.sessions as { id: string; here: boolean }[];
    expect((await list()).filter(({ here }) => here)).toHaveLength(1);
    const [{ id } = { id: '' }] = (await phone.get('/sessions')).json.sessions.filter(
      (each: { here: boolean }) => each.here,
    );
    expect((await stranger.del(`/sessions/${id}`)).status).toBe(404);
    expect((await owner.del(`/sessions/${id}`)).status).toBe(200);
    expect((await phone.get('/session')).status).toBe(401);
    await owner.del('/sessions');
    expect((await tablet.get('/session')).status).toBe(401);
    expect(await list()).toMatchObject([{ here: true }]);
    expect((await stranger.get('/session')).status).toBe(200);
  });
});

describe('what the owner looks after', () => {
  test('a builder who forgot gets a code: good once, for a name, and it ends his old sessions', async () => {
    const { owner, second } = await shopOfTwo();
    const before = await signedIn(opened.api, second.signInName);
    expect((await before.post(`/builders/${second.id}/code`, {})).status).toBe(403);
    const { code } = (await owner.post(`/builders/${second.id}/code`, {})).json;
    const use = (typed: string, password = NEW) =>
      client(opened.api).post('/session/code', { signInName: second.signInName, code: typed, password });
    expect((await use('AAAA-AAAA')).status).toBe(403);
    expect((await use(code, 'short')).status).toBe(422);
    expect((await use(`${code.slice(0, 4)}-${code.slice(4).toLowerCase()}`)).status).toBe(201);
    expect((await use(code)).status).toBe(403);
    expect((await before.get('/session')).status).toBe(401);
    expect((await signIn(second.signInName, NEW)).status).toBe(201);
  });

  test('a builder whose access ends is out at once; name and entries stay; a code lets him in again', async () => {
    const { owner, second, builderId } = await shopOfTwo();
    const id = uuidv7();
    const them = await signedIn(opened.api, second.signInName);
    await them.post('/builds', { entry: makeEntry('build.described', description(), id, second.id) });
    expect((await owner.post(`/builders/${builderId}/end`, {})).status).toBe(409);
    expect((await owner.post(`/builders/${second.id}/end`, {})).status).toBe(200);
    expect((await them.get('/session')).status).toBe(401);
    expect((await signIn(second.signInName, PASSWORD)).status).toBe(401);
    expect((await owner.get(`/builds/${id}/builders`)).json.builders).toEqual([
      { id: second.id, name: 'Second builder' },
    ]);
    const ended = (await owner.get('/builders')).json.builders.find((each: { id: string }) => each.id === second.id);
    expect(ended.endedAt).toBeTruthy();
    const { code } = (await owner.post(`/builders/${second.id}/code`, {})).json;
    const again = { signInName: second.signInName, code, password: NEW };
    expect((await client(opened.api).post('/session/code', again)).status).toBe(201);
  });

  test('the shop is handed over against the owner’s password', async () => {
    const { owner, second } = await shopOfTwo();
    const them = await signedIn(opened.api, second.signInName);
    expect((await them.put('/shop/owner', { to: second.id, password: PASSWORD })).status).toBe(403);
    expect((await owner.put('/shop/owner', { to: second.id, password: 'no' })).status).toBe(403);
    expect((await owner.put('/shop/owner', { to: second.id, password: PASSWORD })).status).toBe(200);
    expect((await them.get('/session')).json.role).toBe('owner');
    expect((await owner.get('/session')).json.role).toBe('builder');
    expect((await owner.put('/shop/rules', { zeroRule: null })).status).toBe(403);
  });

  test('keys of bench boxes are the owner’s alone, and a name is matched to the letter', async () => {
    const { owner, second } = await shopOfTwo();
    const them = await signedIn(opened.api, second.signInName);
    expect((await them.post('/instruments', { name: 'bench-1' })).status).toBe(403);
    expect((await owner.post('/instruments', { name: 'bench-1' })).status).toBe(201);
    expect((await them.del('/instruments/bench-1')).status).toBe(403);
    expect((await owner.del('/instruments/BENCH-1')).status).toBe(404);
    expect((await owner.del('/instruments/bench-1')).status).toBe(200);
  });
});

test('whoever sits at the machine lets the owner in', async () => {
  const { signInName } = await addShop(opened.database);
  expect(await letIn(opened.database.db, 'nobody-of-that-name')).toBeNull();
  const code = (await letIn(opened.database.db, ` ${signInName.toUpperCase()} `)) ?? '';
  expect((await client(opened.api).post('/session/code', { signInName, code, password: NEW })).status).toBe(201);
});

test('a code runs out', async () => {
  const { signInName } = await addShop(opened.database);
  const code = (await letIn(opened.database.db, signInName)) ?? '';
  await opened.database.db.execute(sql`update builder set reset_until = utc_timestamp() - interval 1 second`);
  expect((await client(opened.api).post('/session/code', { signInName, code, password: NEW })).status).toBe(403);
});

test.each([
  ['short one', /At least 10 characters; these are 9/],
  ['          ', /Blanks alone/],
  ['aaaaaaaaaaaaaaaa', /same sign again/],
  ['password123', /commonest/],
  ['1234567890', /commonest|row of signs/],
  ['Fennel-Yard 26', /little more than the name “Fennel Yard”/],
  ['mara quill 1', /little more than the name “Mara Quill”/],
  ['abcabcabcabcabc', /repeats itself/],
])('the password “%s” is refused, and why is said', async (password, words) => {
  expect(passwordTrouble(password, ['Fennel Yard', 'Mara Quill', 'mara'])).toMatch(words);
  // The meter says the same while it is typed.
  const { json } = await client(opened.api).post('/password', { password, names: ['Fennel Yard', 'Mara Quill'] });
  expect(json.trouble).toMatch(words);
});

test('nobody keeps the server busy with judging passwords', async () => {
  const asked = Array.from({ length: 60 }, () => client(opened.api).post('/password', { password: 'x', names: [] }));
  const answers = (await Promise.all(asked)).map(({ status }) => status);
  expect(answers.filter((status) => status === 429).length).toBeGreaterThanOrEqual(20);
});

test('a sentence of one’s own will do', () => {
  expect(passwordTrouble('three herons on a weir', ['Fennel Yard'])).toBeNull();
});
