import {
  bigint,
  boolean,
  char,
  customType,
  datetime,
  decimal,
  double,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import { LOGO_KINDS } from '@yosoku/core/paper/letterhead';
import type { ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import type { RulingMethod } from '@yosoku/core/measure/read-methods';
import type { Entry } from '@yosoku/core/record/entry';
import type { Station } from '@yosoku/core/record/entries/stations';
import type { ExerciseName } from '@yosoku/core/practice/exercises';
import type { Hardware } from '@yosoku/core/timing-set/hardware';
import type { ObservedMove } from '@yosoku/core/timing-set/learned-response';

const uuid = (name: string) => char(name, { length: 36 });
/** Up to 16 MB of bytes. */
const mediumblob = customType<{ data: Buffer }>({ dataType: () => 'mediumblob' });
const moment = (name: string) => datetime(name, { mode: 'date', fsp: 3 });

export const shop = mysqlTable('shop', {
  id: uuid('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  createdAt: moment('created_at').notNull(),
  /** The method that the shop finds TDC by wherever the engine allows it; null leaves it to the engine. */
  zeroRule: varchar('zero_rule', { length: 20 }).$type<ZeroMethodName>(),
  /** The method that its verdicts speak from; null leaves it to what was measured. */
  readRule: varchar('read_rule', { length: 20 }).$type<RulingMethod>(),
});

export const builder = mysqlTable(
  'builder',
  {
    id: uuid('id').primaryKey(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    name: varchar('name', { length: 80 }).notNull(),
    signInName: varchar('sign_in_name', { length: 60 }).notNull(),
    passwordHash: varchar('password_hash', { length: 255 }).notNull(),
    role: mysqlEnum('role', ['owner', 'builder']).notNull(),
    createdAt: moment('created_at').notNull(),
    /** When the owner ended this builder's access; null while it lasts. Name and entries stay. */
    endedAt: moment('ended_at'),
    /** Hash of a one-time code that lets the builder choose a new password, until then. */
    resetHash: char('reset_hash', { length: 64 }),
    resetUntil: moment('reset_until'),
  },
  (table) => [uniqueIndex('builder_sign_in_name').on(table.signInName), index('builder_shop').on(table.shopId)],
);

/** Only the hash of a session's token is kept: a stolen table opens no session. */
export const session = mysqlTable(
  'session',
  {
    tokenHash: char('token_hash', { length: 64 }).primaryKey(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builder.id),
    expiresAt: moment('expires_at').notNull(),
    createdAt: moment('created_at'),
    /** When it was used last, to a few minutes. */
    seenAt: moment('seen_at'),
    /** What the browser says that it is, for the list of sessions. */
    agent: varchar('agent', { length: 200 }),
    /** What the builder calls the device, where he has said. */
    name: varchar('name', { length: 60 }),
  },
  (table) => [index('session_expiry').on(table.expiresAt), index('session_builder').on(table.builderId)],
);

/** A device on which a builder has signed in before: floods of wrong passwords from elsewhere do not lock it out. Only the hash of its token is kept. */
export const knownDevice = mysqlTable(
  'known_device',
  {
    tokenHash: char('token_hash', { length: 64 }).notNull(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builder.id),
    usedAt: moment('used_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.tokenHash, table.builderId] })],
);

/** A phone that is being let in by its builder: from the code on the bench screen to the session. Only hashes of what opens something are kept. */
export const pairing = mysqlTable(
  'pairing',
  {
    id: uuid('id').primaryKey(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builder.id),
    /** Opens the claim, once. */
    tokenHash: char('token_hash', { length: 64 }).notNull(),
    /** Where the phone goes on: the page that the bench has open. */
    place: varchar('place', { length: 200 }).notNull(),
    until: moment('until').notNull(),
    /** Of the phone that has claimed it; null before. */
    secretHash: char('secret_hash', { length: 64 }),
    figure: char('figure', { length: 2 }),
    agent: varchar('agent', { length: 200 }),
    confirmedAt: moment('confirmed_at'),
    name: varchar('name', { length: 60 }),
  },
  (table) => [uniqueIndex('pairing_token').on(table.tokenHash), index('pairing_until').on(table.until)],
);

/** Filled by rate-limiter-flexible, which prescribes these columns. */
export const signInAttempt = mysqlTable('sign_in_attempt', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
});

/** Holds the hash of the one-time code that lets the first owner in. */
export const setup = mysqlTable('setup', {
  id: int('id').primaryKey(),
  codeHash: char('code_hash', { length: 64 }).notNull(),
});

/**
 * A build and what lists show of it. The summary columns speak of the entries up to `summarySeq` and are renewed from the
 * entries when they lag behind.
 */
export const build = mysqlTable(
  'build',
  {
    id: uuid('id').primaryKey(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    createdAt: moment('created_at').notNull(),
    summarySeq: int('summary_seq').notNull().default(0),
    name: varchar('name', { length: 80 }).notNull(),
    zeroState: varchar('zero_state', { length: 12 }).notNull().default('none'),
    verdictKind: varchar('verdict_kind', { length: 16 }).notNull().default('waiting'),
    /** The station that a list leads to. */
    place: varchar('place', { length: 12 }).$type<Station>().notNull().default('zero'),
    headline: varchar('headline', { length: 255 }).notNull().default(''),
    delta: decimal('delta', { precision: 9, scale: 6 }),
    /** Names of builders of other shops whose ids stand in the entries of a file that was taken in. */
    builders: json('builders').$type<readonly { readonly id: string; readonly name: string }[]>(),
  },
  (table) => [index('build_shop').on(table.shopId)],
);

/** Timing hardware on the shelf of a shop. */
export const hardware = mysqlTable(
  'hardware',
  {
    id: uuid('id').primaryKey(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    name: varchar('name', { length: 80 }).notNull(),
    body: json('body').$type<Hardware>().notNull(),
    /** Taken off the shelf: builds that have it fitted keep it. */
    retired: boolean('retired').notNull().default(false),
    changedAt: moment('changed_at').notNull(),
  },
  (table) => [index('hardware_shop').on(table.shopId)],
);

/** What a piece of hardware gave on a build, worked out from its entries and renewed with its summary. Crank degrees. */
export const hardwareMove = mysqlTable(
  'hardware_move',
  {
    buildId: uuid('build_id')
      .notNull()
      .references(() => build.id),
    place: int('place').notNull(),
    hardwareId: uuid('hardware_id').notNull(),
    settings: json('settings').$type<Pick<ObservedMove, 'from' | 'to' | 'took'>>().notNull(),
    gave: decimal('gave', { precision: 9, scale: 6 }).notNull(),
    standard: decimal('standard', { precision: 9, scale: 6 }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.buildId, table.place] }), index('hardware_move_piece').on(table.hardwareId)],
);

/** The truth: facts in the order of their arrival. Never updated, never deleted. */
export const entry = mysqlTable(
  'entry',
  {
    id: uuid('id').notNull(),
    buildId: uuid('build_id')
      .notNull()
      .references(() => build.id),
    seq: int('seq').notNull(),
    kind: varchar('kind', { length: 32 }).notNull(),
    body: json('body').$type<Entry['body']>().notNull(),
    takenAt: moment('taken_at').notNull(),
    builderId: uuid('builder_id').notNull(),
    postedBy: uuid('posted_by').notNull(),
    receivedAt: moment('received_at').notNull(),
  },
  (table) => [
    // The same entry may stand in two builds: a file can be taken into another shop.
    primaryKey({ columns: [table.id, table.buildId] }),
    uniqueIndex('entry_build_seq').on(table.buildId, table.seq),
  ],
);

/** The picture of a photo, by its fingerprint. What it shows stands in the logbook; it may come later than its entry. */
export const photo = mysqlTable(
  'photo',
  {
    buildId: uuid('build_id')
      .notNull()
      .references(() => build.id),
    /** SHA-256 of the bytes. */
    picture: char('picture', { length: 64 }).notNull(),
    bytes: mediumblob('bytes').notNull(),
    receivedAt: moment('received_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.buildId, table.picture] })],
);

/** The head of a shop’s sheets, beside its name. */
export const letterhead = mysqlTable('letterhead', {
  shopId: uuid('shop_id')
    .primaryKey()
    .references(() => shop.id),
  /** Lines under the name. */
  lines: varchar('lines', { length: 400 }).notNull(),
  logoKind: mysqlEnum('logo_kind', LOGO_KINDS),
  /** Written anew by us, see `letterhead/read-logo.ts`; null without one. */
  logo: mediumblob('logo'),
  logoWidth: double('logo_width'),
  logoHeight: double('logo_height'),
});

/** A screen of the shop that shows one build to whoever stands there. Its link opens nothing else; only the hash of its token is kept. */
export const board = mysqlTable(
  'board',
  {
    id: uuid('id').primaryKey(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    name: varchar('name', { length: 40 }).notNull(),
    tokenHash: char('token_hash', { length: 64 }).notNull(),
    /** What it shows; null while it shows nothing. */
    buildId: uuid('build_id').references(() => build.id),
    createdAt: moment('created_at').notNull(),
    /** When a screen had it open last, to a minute. */
    seenAt: moment('seen_at'),
  },
  (table) => [uniqueIndex('board_token').on(table.tokenHash), index('board_shop').on(table.shopId)],
);

/** A bench box of a shop: who has its key may speak as it. Only the hash of the key is kept. */
export const benchBox = mysqlTable(
  'bench_box',
  {
    id: uuid('id').primaryKey(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    name: varchar('name', { length: 24 }).notNull(),
    keyHash: char('key_hash', { length: 64 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [
    uniqueIndex('bench_box_name').on(table.shopId, table.name),
    uniqueIndex('bench_box_key').on(table.keyHash),
  ],
);

/** A finished exercise. What was written in it stays on the device: practice never stands among the builds of the shop. */
export const practiceScore = mysqlTable(
  'practice_score',
  {
    id: uuid('id').primaryKey(),
    builderId: uuid('builder_id')
      .notNull()
      .references(() => builder.id),
    exercise: varchar('exercise', { length: 24 }).$type<ExerciseName>().notNull(),
    score: int('score').notNull(),
    hints: int('hints').notNull(),
    doneAt: moment('done_at').notNull(),
  },
  (table) => [index('practice_score_builder').on(table.builderId)],
);
