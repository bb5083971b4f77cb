import { and, eq, gt, isNull, ne } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Db } from '../db/database';
import { isDuplicate } from '../db/trouble';
import { builder, setup, shop } from '../db/schema';
import { isWellFormed } from '@yosoku/core/units/text';
import { Problem } from '../web/problem';
import { makeCode, plainCode } from './codes';
import { HASH_OF_NOBODY, hashPassword, passwordMatches } from './password';
import { passwordTrouble } from './password-rules';
import { sha256 } from './session';

const name = (what: string) =>
  z
    .string({ error: `${what} is missing` })
    .trim()
    .min(1, { error: `${what} is missing` })
    .max(80, { error: `${what} is too long: at most 80 characters` })
    .refine(isWellFormed, { error: `${what} ends in half a character` });
const signInName = z
  .string({ error: 'the sign-in name is missing' })
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9][a-z0-9._-]{1,58}$/, {
    error: 'the sign-in name takes 2 to 59 letters, digits, dots or dashes, and begins with a letter or digit',
  });
/** Its rules depend on names, too: `requirePassword`. */
const newPassword = z.string({ error: 'the password is missing' }).max(1000);

export const credentialsSchema = z.strictObject({
  signInName: z.string().trim().toLowerCase().min(1, { error: 'type your sign-in name' }).max(60),
  password: z.string().min(1, { error: 'type your password' }).max(200),
});
export const newBuilderSchema = z.strictObject({ builderName: name('the name'), signInName, password: newPassword });
export const newShopSchema = newBuilderSchema.extend({
  code: z.string().trim().min(1, { error: 'type the code from the terminal' }).max(60),
  shopName: name('the shop’s name'),
});

export const changeSchema = z.strictObject({ old: z.string().max(1000), password: newPassword });
export const resetSchema = z.strictObject({
  signInName: z.string().trim().toLowerCase().min(1, { error: 'type your sign-in name' }).max(60),
  code: z.string().trim().min(1, { error: 'type the code that you were given' }).max(60),
  password: newPassword,
});

export type NewBuilder = z.infer<typeof newBuilderSchema>;

/** Throws a problem that says why a password will not do. @param field that it was typed in. */
export function requirePassword(password: string, names: readonly string[], field = 'password'): void {
  const trouble = passwordTrouble(password, names);
  if (trouble) throw new Problem(422, 'Not a good password', trouble, [{ field, message: trouble }]);
}

/** The builder with these credentials, or null. */
export async function findByCredentials(
  db: Db,
  { signInName: typed, password }: z.infer<typeof credentialsSchema>,
): Promise<string | null> {
  const [row] = await db
    .select({ id: builder.id, hash: builder.passwordHash })
    .from(builder)
    .where(and(eq(builder.signInName, typed), isNull(builder.endedAt)));
  // Checked when the name is unknown too, so that the answer takes as long and tells nobody which names exist.
  const matches = await passwordMatches(password, row?.hash ?? HASH_OF_NOBODY);
  return row && matches ? row.id : null;
}

/** Adds a builder to a shop. Throws a 409 problem when the sign-in name is taken. */
export async function addBuilder(
  db: Db,
  shopId: string,
  role: 'owner' | 'builder',
  { builderName, signInName: wanted, password }: NewBuilder,
): Promise<string> {
  const id = uuidv7();
  const passwordHash = await hashPassword(password);
  try {
    await db
      .insert(builder)
      .values({ id, shopId, name: builderName, signInName: wanted, passwordHash, role, createdAt: new Date() });
  } catch (error) {
    if (isDuplicate(error))
      throw new Problem(409, 'Name taken', `The sign-in name “${wanted}” is taken. Choose another.`);
    throw error;
  }
  return id;
}

export const hasShop = async (db: Db): Promise<boolean> =>
  (await db.select({ id: shop.id }).from(shop).limit(1)).length > 0;

/** Keeps the hash of a fresh one-time code for the first owner. */
export async function renewSetupCode(db: Db, code: string): Promise<void> {
  await db
    .insert(setup)
    .values({ id: 1, codeHash: sha256(code) })
    .onDuplicateKeyUpdate({ set: { codeHash: sha256(code) } });
}

/** Opens the first shop against the one-time code, which is used up by it. Returns the owner. */
export async function openFirstShop(db: Db, wanted: z.infer<typeof newShopSchema>): Promise<string> {
  return db.transaction(async (tx) => {
    const [kept] = await tx.select().from(setup).where(eq(setup.id, 1)).for('update');
    if (!kept) throw new Problem(409, 'Already set up', 'This shop has been set up already. Sign in instead.');
    if (kept.codeHash !== sha256(plainCode(wanted.code)))
      throw new Problem(403, 'Wrong code', 'That is not the code in the terminal where Yosoku was started.');
    requirePassword(wanted.password, [wanted.shopName, wanted.builderName, wanted.signInName]);
    const shopId = uuidv7();
    await tx.insert(shop).values({ id: shopId, name: wanted.shopName, createdAt: new Date() });
    const owner = await addBuilder(tx as unknown as Db, shopId, 'owner', wanted);
    await tx.delete(setup).where(eq(setup.id, 1));
    return owner;
  });
}

/** A code that lets somebody choose a new password is good for so long. */
const CODE_HOURS = 24;

/** A builder of a shop by id, whether or not he still has access. Throws a 404 problem when there is none. */
async function requireBuilder(db: Db, shopId: string, id: string) {
  const [row] = await db
    .select()
    .from(builder)
    .where(and(eq(builder.id, id), eq(builder.shopId, shopId)));
  if (!row) throw new Problem(404, 'No such builder', 'There is no such builder in your shop.');
  return row;
}

/** Gives a builder a one-time code to choose a new password with. His access begins again with it where it had ended. */
async function giveCode(db: Db, builderId: string): Promise<string> {
  const code = makeCode();
  await db
    .update(builder)
    .set({ resetHash: sha256(code), resetUntil: new Date(Date.now() + CODE_HOURS * 3600_000) })
    .where(eq(builder.id, builderId));
  return code;
}

/** The owner resets a builder: the code is shown once. */
export async function resetBuilder(db: Db, shopId: string, id: string): Promise<string> {
  return giveCode(db, (await requireBuilder(db, shopId, id)).id);
}

/** For somebody at the machine itself, who has the database anyway: a code for a sign-in name; null when nobody has it. */
export async function letIn(db: Db, signInName: string): Promise<string | null> {
  const [row] = await db
    .select({ id: builder.id })
    .from(builder)
    .where(eq(builder.signInName, signInName.trim().toLowerCase()));
  return row ? giveCode(db, row.id) : null;
}

/** Sets a new password against a one-time code, which is used up by it. Returns the builder. */
export async function chooseByCode(db: Db, { signInName: typed, code, password }: z.infer<typeof resetSchema>) {
  return db.transaction(async (tx) => {
    const [row] = await tx
      .select({ id: builder.id, name: builder.name, resetHash: builder.resetHash, shopName: shop.name })
      .from(builder)
      .innerJoin(shop, eq(shop.id, builder.shopId))
      .where(and(eq(builder.signInName, typed), gt(builder.resetUntil, new Date())))
      .for('update');
    if (row?.resetHash !== sha256(plainCode(code)))
      throw new Problem(403, 'Wrong code', 'That code does not belong to this name, was used already, or has run out.');
    requirePassword(password, [row.shopName, row.name, typed]);
    await tx
      .update(builder)
      .set({ passwordHash: await hashPassword(password), resetHash: null, resetUntil: null, endedAt: null })
      .where(eq(builder.id, row.id));
    return row.id;
  });
}

/** Changes one's own password; the old one is asked. */
export async function changePassword(
  db: Db,
  account: { readonly builderId: string; readonly builderName: string; readonly shopName: string },
  { old, password }: z.infer<typeof changeSchema>,
): Promise<void> {
  const [row] = await db.select().from(builder).where(eq(builder.id, account.builderId));
  if (!row || !(await passwordMatches(old, row.passwordHash)))
    throw new Problem(403, 'Wrong password', 'That is not your password now.', [
      { field: 'old', message: 'That is not your password now.' },
    ]);
  requirePassword(password, [account.shopName, account.builderName, row.signInName]);
  await db
    .update(builder)
    .set({ passwordHash: await hashPassword(password), resetHash: null, resetUntil: null })
    .where(eq(builder.id, account.builderId));
}

/** Ends a builder's access. Entries and name stay. The owner cannot end his own: he hands the shop over first. */
export async function endAccess(db: Db, shopId: string, id: string): Promise<void> {
  const row = await requireBuilder(db, shopId, id);
  if (row.role === 'owner')
    throw new Problem(409, 'The owner', 'The owner’s access cannot be ended. Hand the shop over first.');
  await db.update(builder).set({ endedAt: new Date(), resetHash: null, resetUntil: null }).where(eq(builder.id, id));
}

/** Makes another builder the owner of the shop; the owner becomes a builder. His password is asked. */
export async function handOver(
  db: Db,
  { builderId, shopId }: { readonly builderId: string; readonly shopId: string },
  to: string,
  password: string,
): Promise<void> {
  const [owner] = await db.select().from(builder).where(eq(builder.id, builderId));
  if (!owner || !(await passwordMatches(password, owner.passwordHash)))
    throw new Problem(403, 'Wrong password', 'That is not your password.', [
      { field: 'password', message: 'That is not your password.' },
    ]);
  const next = await requireBuilder(db, shopId, to);
  if (next.endedAt) throw new Problem(409, 'No access', `${next.name} has no access to the shop any more.`);
  await db.transaction(async (tx) => {
    await tx
      .update(builder)
      .set({ role: 'builder' })
      .where(and(eq(builder.shopId, shopId), ne(builder.id, to)));
    await tx.update(builder).set({ role: 'owner' }).where(eq(builder.id, to));
  });
}
