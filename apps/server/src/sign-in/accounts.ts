import { eq } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Db } from '../db/database';
import { isDuplicate } from '../db/duplicate';
import { builder, setup, shop } from '../db/schema';
import { Problem } from '../web/problem';
import { hashPassword, passwordMatches } from './password';
import { sha256 } from './session';

const name = (what: string) =>
  z
    .string({ error: `${what} is missing` })
    .trim()
    .min(1, { error: `${what} is missing` })
    .max(80, { error: `${what} is too long: at most 80 characters` });
const signInName = z
  .string({ error: 'the sign-in name is missing' })
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9][a-z0-9._-]{1,58}$/, {
    error: 'the sign-in name takes 2 to 59 letters, digits, dots or dashes, and begins with a letter or digit',
  });
const newPassword = z
  .string({ error: 'the password is missing' })
  .min(10, { error: 'the password needs at least 10 characters' })
  .max(200, { error: 'the password is too long: at most 200 characters' });

export const credentialsSchema = z.strictObject({
  signInName: z.string().trim().toLowerCase().min(1, { error: 'type your sign-in name' }).max(60),
  password: z.string().min(1, { error: 'type your password' }).max(200),
});
export const newBuilderSchema = z.strictObject({ builderName: name('the name'), signInName, password: newPassword });
export const newShopSchema = newBuilderSchema.extend({
  code: z.string().trim().min(1, { error: 'type the code from the terminal' }).max(60),
  shopName: name('the shop’s name'),
});

export type NewBuilder = z.infer<typeof newBuilderSchema>;

/** Checked when the name is unknown, so that the answer takes as long and tells nobody which names exist. */
const NOBODY = hashPassword('nobody');

/** The builder with these credentials, or null. */
export async function findByCredentials(
  db: Db,
  { signInName: typed, password }: z.infer<typeof credentialsSchema>,
): Promise<string | null> {
  const [row] = await db
    .select({ id: builder.id, hash: builder.passwordHash })
    .from(builder)
    .where(eq(builder.signInName, typed));
  const matches = await passwordMatches(password, row?.hash ?? (await NOBODY));
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
    if (kept.codeHash !== sha256(wanted.code.toUpperCase()))
      throw new Problem(403, 'Wrong code', 'That is not the code in the terminal where Yosoku was started.');
    const shopId = uuidv7();
    await tx.insert(shop).values({ id: shopId, name: wanted.shopName, createdAt: new Date() });
    const owner = await addBuilder(tx as unknown as Db, shopId, 'owner', wanted);
    await tx.delete(setup).where(eq(setup.id, 1));
    return owner;
  });
}
