import { v7 as uuidv7 } from 'uuid';
import { append, openBuild } from '../builds/append';
import type { Db } from '../db/database';
import { hardware, shop } from '../db/schema';
import { addBuilder } from '../sign-in/accounts';
import { alderCreekFour, gannetTwin, kestrelPointSix, oldTarnEight, quarryHillFour } from './builds';
import { setDemoLetterhead } from './letterhead';
import { sorrelCrossEight } from './lash-build';
import { larkMillEight } from './signed-build';
import { SHELF, fitSlottedPulleys } from './shelf';

/** Known to everybody, and therefore only ever put into a demo database. */
export const DEMO_SIGN_IN = { signInName: 'mara', password: 'layout-dye-demo' } as const;
const SECOND_SIGN_IN = { signInName: 'tobin', password: 'grease-pencil-demo' } as const;

const DAY_MS = 24 * 3600 * 1000;

/** Fills an empty database with an invented shop: two builders, hardware on the shelf, builds at different points of the work. */
export async function loadDemoShop(db: Db, now: Date): Promise<void> {
  const shopId = uuidv7();
  const shopName = 'Fennel Yard Engine Works';
  await db.insert(shop).values({ id: shopId, name: shopName, createdAt: now });
  const mara = await addBuilder(db, shopId, 'owner', { builderName: 'Mara Quill', ...DEMO_SIGN_IN });
  const tobin = await addBuilder(db, shopId, 'builder', { builderName: 'Tobin Ashdown', ...SECOND_SIGN_IN });
  const pen = (builderId: string, daysAgo: number) => ({
    nextId: uuidv7,
    builderId,
    startedAt: new Date(now.getTime() - daysAgo * DAY_MS),
  });
  await db.insert(hardware).values(SHELF.map((piece) => ({ ...piece, shopId, changedAt: now })));
  await setDemoLetterhead(db, shopId);
  const logbooks = [
    larkMillEight(pen(mara, 20)),
    quarryHillFour(pen(tobin, 12)),
    kestrelPointSix(pen(mara, 9)),
    fitSlottedPulleys(gannetTwin(pen(mara, 5)), pen(mara, 4)),
    sorrelCrossEight(pen(mara, 3)),
    oldTarnEight(pen(tobin, 2)),
    alderCreekFour(pen(mara, 1)),
  ];
  for (const entries of logbooks) {
    const [first, ...rest] = entries;
    if (first?.kind !== 'build.described') throw new Error('a demo logbook opens with its description');
    const builderId = first.builderId;
    const account = {
      builderId,
      builderName: '',
      role: 'builder' as const,
      shopId,
      shopName,
      zeroRule: null,
      readRule: null,
    };
    await openBuild(db, account, first);
    await append(db, { account, buildId: first.buildId, entries: rest });
  }
}
