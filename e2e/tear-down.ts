/** For Jest, once after the last file. */
export default async function tearDown(): Promise<void> {
  await globalThis.stopShared?.();
}
