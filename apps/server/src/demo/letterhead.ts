import type { Db } from '../db/database';
import { readLogo } from '../letterhead/read-logo';
import { keepLogo, keepWords } from '../letterhead/store';

const RAYS = [-68, -44, -21, 0, 21, 44, 68];

/** An umbel of fennel, drawn for the invented shop. */
function umbel(): string {
  const rays = RAYS.map((at) => {
    const x = 60 * Math.sin((at * Math.PI) / 180);
    const y = 20 - 52 * Math.cos((at * Math.PI) / 180);
    return `<path d="M0 20Q${(x * 0.35).toFixed(1)} ${(y * 0.5 + 4).toFixed(1)} ${x.toFixed(1)} ${y.toFixed(1)}" fill="none" stroke="#0B6E60" stroke-width="3"/><circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="8" fill="#A87A12"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-70 -42 140 124"><path d="M0 82V20" stroke="#0B6E60" stroke-width="5"/>${rays.join('')}</svg>`;
}

/** What stands at the head of the invented shop’s sheets. */
export async function setDemoLetterhead(db: Db, shopId: string): Promise<void> {
  await keepWords(db, shopId, 'Fennel Yard 3, Lower Sallow\nMonday to Friday, seven to four\nbench@fennelyard.example');
  const read = readLogo(new TextEncoder().encode(umbel()));
  if (!read.ok) throw new Error(read.message);
  await keepLogo(db, shopId, read.logo);
}
