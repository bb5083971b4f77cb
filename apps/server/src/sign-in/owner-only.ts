import { Problem } from '../web/problem';
import type { Account } from './account';

/**
 * Closes what only the owner of a shop does.
 * @example ownerOnly(account, 'adds builders') // for anybody else: “Only the owner of the shop adds builders.”
 */
export function ownerOnly({ role }: Account, what: string): void {
  if (role !== 'owner') throw new Problem(403, 'Owner only', `Only the owner of the shop ${what}.`);
}
