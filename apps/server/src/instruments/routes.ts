import { randomBytes } from 'node:crypto';
import { upgradeWebSocket } from '@hono/node-server';
import { and, eq } from 'drizzle-orm';
import { type Context, Hono } from 'hono';
import type { WSContext } from 'hono/ws';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { boxName } from '@yosoku/core/instruments/line';
import type { Db } from '../db/database';
import { isDuplicate } from '../db/trouble';
import { benchBox } from '../db/schema';
import { ownerOnly } from '../sign-in/owner-only';
import { type Sessions, type SignedIn, sha256 } from '../sign-in/session';
import { checkedJson } from '../web/checked';
import { Problem } from '../web/problem';
import type { Exchange, Listener, Speaker } from './exchange';
import { makeStandIn, orderSchema } from './stand-in';

const newBoxSchema = z.strictObject({ name: boxName });

/** Codes with which a line is closed, and why. Those from 4000 on are an application's own (RFC 6455, 7.4.2). */
const CLOSED = {
  tooMuch: [1008, 'more lines than any box says'],
  notUnderstood: [1007, 'not understood'],
  keyGone: [4401, 'the key of this box was taken away'],
  signedOut: [4403, 'signed out'],
  taken: [4409, 'another box speaks under this key'],
} as const;

const hangUp = (socket: WSContext, [code, why]: (typeof CLOSED)[keyof typeof CLOSED]): void => socket.close(code, why);

/** A line is listened to by Yosoku's own page alone: a browser says where its page came from, and brings its sign-in along. */
function requireOwnPage(c: Context): void {
  const origin = c.req.header('origin');
  const own = origin !== undefined && URL.canParse(origin) && new URL(origin).host === c.req.header('host');
  if (!own) throw new Problem(403, 'Refused', 'This request did not come from Yosoku’s own page.');
}

const keyOf = (c: Context): string =>
  /^Bearer (.+)$/.exec(c.req.header('authorization') ?? '')?.[1] ?? c.req.query('key') ?? '';

const listenerOf = (socket: WSContext): Listener => ({
  send: (text) => socket.send(text),
  // The library’s own type of a socket leaves this out; every socket of `ws` has it.
  behind: () => (socket.raw as { readonly bufferedAmount: number } | undefined)?.bufferedAmount ?? 0,
});

/** A box under its shop: names are given anew in every shop. */
const channel = (shopId: string, name: string): string => `${shopId}/${name}`;

/** Which bench boxes a shop has, and their keys. */
export const boxRoutes = (db: Db, sessions: Sessions, exchange: Exchange) =>
  new Hono<SignedIn>()
    .get('/instruments', sessions.required, async (c) => {
      const { shopId } = c.get('account');
      const boxes = await db
        .select({ name: benchBox.name })
        .from(benchBox)
        .where(eq(benchBox.shopId, shopId))
        .orderBy(benchBox.name);
      return c.json({ boxes: boxes.map(({ name }) => ({ name, live: exchange.isLive(channel(shopId, name)) })) });
    })
    .post('/instruments', sessions.required, checkedJson(newBoxSchema), async (c) => {
      ownerOnly(c.get('account'), 'gives boxes their keys');
      const { name } = c.req.valid('json');
      const key = randomBytes(24).toString('base64url');
      try {
        await db.insert(benchBox).values({
          id: uuidv7(),
          shopId: c.get('account').shopId,
          name,
          keyHash: sha256(key),
          createdAt: new Date(),
        });
      } catch (error) {
        if (isDuplicate(error)) throw new Problem(409, 'Name in use', `There is a box called ${name} already.`);
        throw error;
      }
      return c.json({ name, key }, 201);
    })
    .delete('/instruments/:name', sessions.required, async (c) => {
      ownerOnly(c.get('account'), 'gives boxes their keys');
      const of = and(eq(benchBox.shopId, c.get('account').shopId), eq(benchBox.name, c.req.param('name')));
      const [known] = await db.select({ id: benchBox.id, name: benchBox.name }).from(benchBox).where(of);
      // The database takes capitals and small letters for the same.
      if (known?.name !== c.req.param('name')) throw new Problem(404, 'Not found', 'Your shop has no such box.');
      await db.delete(benchBox).where(of);
      exchange.cut(channel(c.get('account').shopId, c.req.param('name')));
      return c.json({ ok: true });
    });

/** What boxes say, to whoever listens; and a box that there is not, for practice. */
export const lineRoutes = (db: Db, sessions: Sessions, exchange: Exchange) =>
  new Hono<SignedIn>()
    .get(
      '/instruments/speak',
      upgradeWebSocket(async (c) => {
        const [box] = await db
          .select({ shopId: benchBox.shopId, name: benchBox.name })
          .from(benchBox)
          .where(eq(benchBox.keyHash, sha256(keyOf(c))));
        if (!box) throw new Problem(401, 'No such key', 'No box of any shop has this key.');
        let speaker: Speaker | null = null;
        return {
          onOpen: (_event, socket) => {
            speaker = exchange.plugIn(channel(box.shopId, box.name), (why) => hangUp(socket, CLOSED[why]));
            if (!speaker) hangUp(socket, CLOSED.taken);
          },
          onMessage: ({ data }, socket) => {
            if (typeof data !== 'string') return hangUp(socket, CLOSED.notUnderstood);
            if (speaker && !speaker.say(data)) hangUp(socket, CLOSED.tooMuch);
          },
          onClose: () => speaker?.leave(),
        };
      }),
    )
    .get(
      '/instruments/:name/listen',
      sessions.required,
      upgradeWebSocket((c) => {
        requireOwnPage(c);
        const { shopId } = (c as Context<SignedIn>).get('account');
        let stop = (): void => undefined;
        return {
          onOpen: (_event, socket) => {
            const unlisten = exchange.listen(channel(shopId, c.req.param('name') ?? ''), listenerOf(socket));
            const forget = sessions.whileSignedIn(c, () => hangUp(socket, CLOSED.signedOut));
            stop = () => {
              unlisten();
              forget();
            };
          },
          onClose: () => stop(),
        };
      }),
    )
    .get(
      '/practice/instruments',
      sessions.required,
      upgradeWebSocket((c) => {
        requireOwnPage(c);
        let standIn: ReturnType<typeof makeStandIn> | null = null;
        let forget = (): void => undefined;
        return {
          onOpen: (_event, socket) => {
            forget = sessions.whileSignedIn(c, () => hangUp(socket, CLOSED.signedOut));
            standIn = makeStandIn((line) => socket.send(line), Date.now());
          },
          onMessage: ({ data }, socket) => {
            const order = typeof data === 'string' ? orderSchema.safeParse(jsonOf(data)) : null;
            if (order?.success) standIn?.hear(order.data);
            else hangUp(socket, CLOSED.notUnderstood);
          },
          onClose: () => {
            standIn?.stop();
            forget();
          },
        };
      }),
    );

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
