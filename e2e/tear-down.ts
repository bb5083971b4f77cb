import { started } from './set-up';

/** For Jest, once after the last file. */
export default async function tearDown(): Promise<void> {
  await Promise.all(started.map(({ stop }) => stop()));
}
