import { eq } from 'drizzle-orm';
import { builder, session, setup, shop, signInAttempt } from '../db/schema';
import { PASSWORD, addShop, client, openApi, signedIn } from '../testing/api-client';
import { addBuilder, hasShop, renewSetupCode } from './accounts';
import { waitAfter } from './attempts';
import { hashPassword, passwordMatches } from './password';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
// In-process tests share one address: what one of them failed at must not slow the next.
beforeEach(() => opened.database.db.delete(signInAttempt));
afterAll(() => opened.close());

describe('sign-in', () => {
  test('opens a session that scripts cannot read and other sites cannot send', async () => {
    const { signInName, builderId } = await addShop(opened.database);
    const answer = await client(opened.api).post('/session', { signInName, password: PASSWORD });
    expect(answer.status).toBe(201);
    expect(answer.setCookie).toMatch(/HttpOnly/);
    expect(answer.setCookie).toMatch(/SameSite=Strict/);
    const me = client(opened.api, answer.setCookie.split(';')[0]);
    expect((await me.get('/session')).json).toMatchObject({ builderId, shopName: 'Test shop' });
    await me.del('/session');
    expect((await me.get('/session')).status).toBe(401);
  });

  test('every route but sign-in is closed without one', async () => {
    const nobody = client(opened.api);
    const routes = [
      nobody.get('/session'),
      nobody.get('/builders'),
      nobody.post('/builders', {}),
      nobody.get('/builds'),
      nobody.post('/builds', {}),
      nobody.get('/builds/x/entries'),
      nobody.get('/builds/x/report'),
      nobody.post('/builds/x/entries', { entries: [] }),
    ];
    for (const answer of await Promise.all(routes))
      expect(answer).toMatchObject({ status: 401, type: 'application/problem+json' });
    const forged = client(opened.api, 'yosoku_session=00000000000000000000000000000000');
    expect((await forged.get('/builds')).status).toBe(401);
  });

  test('a session that has run out no longer opens anything', async () => {
    const { signInName, builderId } = await addShop(opened.database);
    const me = await signedIn(opened.api, signInName);
    await opened.database.db
      .update(session)
      .set({ expiresAt: new Date(Date.now() - 1000) })
      .where(eq(session.builderId, builderId));
    expect((await me.get('/builds')).status).toBe(401);
  });

  test('a wrong password says no more than an unknown name', async () => {
    const { signInName } = await addShop(opened.database);
    const wrong = await client(opened.api).post('/session', { signInName, password: 'wrong' });
    const unknown = await client(opened.api).post('/session', { signInName: 'nobody-here', password: 'wrong' });
    expect(wrong.status).toBe(401);
    expect(wrong.json).toEqual(unknown.json);
  });

  test('a few failures are forgiven; from then on every try waits longer than the last, the right password too', async () => {
    const { signInName } = await addShop(opened.database);
    const nobody = client(opened.api);
    const guess = (password: string) => nobody.post('/session', { signInName, password });
    for (let i = 0; i < 4; i += 1) expect((await guess('wrong')).status).toBe(401);
    expect((await guess(PASSWORD)).status).toBe(201);
    for (let i = 0; i < 6; i += 1) await guess('wrong');
    const stopped = await guess(PASSWORD);
    expect(stopped).toMatchObject({ status: 429, type: 'application/problem+json' });
    expect(stopped.json.detail).toMatch(/Wait \d+ seconds/);
    expect([5, 6, 8, 30].map((failures) => waitAfter(failures, 5))).toEqual([5, 10, 40, 900]);
  });

  test('many guesses at the same moment get no further than a few one after the other', async () => {
    const { signInName } = await addShop(opened.database);
    const nobody = client(opened.api);
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, at) => nobody.post('/session', { signInName, password: `guess ${at}` })),
    );
    expect(answers.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(6);
  });

  test('a flood of wrong passwords does not lock the builder out of a device on which he has signed in before', async () => {
    const { signInName } = await addShop(opened.database);
    const first = await client(opened.api).post('/session', { signInName, password: PASSWORD });
    const device = /yosoku_device=[^;,]+/.exec(first.setCookie)?.[0] ?? '';
    const nobody = client(opened.api);
    for (let i = 0; i < 8; i += 1) await nobody.post('/session', { signInName, password: 'wrong' });
    expect((await nobody.post('/session', { signInName, password: PASSWORD })).status).toBe(429);
    expect((await client(opened.api, device).post('/session', { signInName, password: PASSWORD })).status).toBe(201);
    // Which is no way round the limit: it has a count of its own.
    for (let i = 0; i < 6; i += 1) await client(opened.api, device).post('/session', { signInName, password: 'wrong' });
    expect((await client(opened.api, device).post('/session', { signInName, password: PASSWORD })).status).toBe(429);
  });

  test('passwords are kept memory-hard, salted, and never as typed', async () => {
    const [one, two] = [await hashPassword('same password'), await hashPassword('same password')];
    expect(one).not.toBe(two);
    expect(one).toMatch(/^scrypt\$32768\$8\$3\$/);
    expect(await passwordMatches('same password', one)).toBe(true);
    expect(await passwordMatches('Same password', one)).toBe(false);
    expect(await passwordMatches('anything', 'rubbish')).toBe(false);
    const { shopId, signInName } = await addShop(opened.database);
    const added = { builderName: 'Added', signInName: `a${signInName}`, password: 'same password' };
    const id = await addBuilder(opened.database.db, shopId, 'builder', added);
    const [row] = await opened.database.db.select().from(builder).where(eq(builder.id, id));
    expect(row?.passwordHash).toMatch(/^scrypt\$32768\$8\$3\$/);
    expect(await passwordMatches('same password', row?.passwordHash ?? '')).toBe(true);
  });
});

describe('builders of a shop', () => {
  test('the owner adds them; names are unique; others may not', async () => {
    const { signInName } = await addShop(opened.database);
    const owner = await signedIn(opened.api, signInName);
    const newcomer = { builderName: 'Newcomer', signInName: `n${signInName}`, password: PASSWORD };
    expect((await owner.post('/builders', newcomer)).status).toBe(201);
    expect((await owner.post('/builders', newcomer)).status).toBe(409);
    expect((await owner.post('/builders', { ...newcomer, password: 'short' })).json.detail).toMatch(
      /At least 10 characters; these are 5/,
    );
    const other = await signedIn(opened.api, newcomer.signInName);
    expect((await other.post('/builders', { ...newcomer, signInName: 'third' })).status).toBe(403);
    expect((await other.get('/builders')).json.builders).toHaveLength(2);

    // The shop's rules: the owner's word, the whole shop's rule, at once; one leaves the other alone.
    expect((await other.put('/shop/rules', { zeroRule: 'equal-drop' })).status).toBe(403);
    expect((await owner.put('/shop/rules', { zeroRule: 'by-eye' })).status).toBe(422);
    expect((await owner.put('/shop/rules', { zeroRule: 'equal-drop', readRule: 'events' })).status).toBe(200);
    expect((await other.get('/session')).json).toMatchObject({ zeroRule: 'equal-drop', readRule: 'events' });
    expect((await owner.put('/shop/rules', { zeroRule: null })).status).toBe(200);
    expect((await other.get('/session')).json).toMatchObject({ zeroRule: null, readRule: 'events' });
    expect((await owner.put('/shop/rules', {})).status).toBe(422);
  });
});

describe('the first visit', () => {
  const wanted = {
    code: 'ABCD2345',
    shopName: 'First',
    builderName: 'Owner',
    signInName: 'first-owner',
    password: PASSWORD,
  };

  test('the owner comes in by the one-time code, once', async () => {
    const { db } = opened.database;
    await renewSetupCode(db, 'ABCD2345');
    const nobody = client(opened.api);
    const wrong = await nobody.post('/setup', { ...wanted, code: 'WRONG234' });
    expect(wrong.status).toBe(403);
    const before = (await db.select().from(shop)).length;
    // A name that is taken undoes the shop as well, and leaves the code good.
    const { signInName } = await addShop(opened.database);
    expect((await nobody.post('/setup', { ...wanted, signInName })).status).toBe(409);
    expect((await db.select().from(shop)).length).toBe(before + 1);
    const opening = await nobody.post('/setup', { ...wanted, code: ' abcd2345 ' });
    expect(opening.status).toBe(201);
    expect(await hasShop(db)).toBe(true);
    expect((await nobody.post('/setup', { ...wanted, signInName: 'second-owner' })).status).toBe(409);
    expect(await db.select().from(setup)).toEqual([]);
    const [owner] = await db.select().from(builder).where(eq(builder.signInName, 'first-owner'));
    expect(owner?.role).toBe('owner');
    const me = client(opened.api, opening.setCookie.split(';')[0]);
    expect((await me.get('/session')).json).toMatchObject({ shopName: 'First', role: 'owner' });
  });
});
