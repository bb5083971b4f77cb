import type { WebDriver } from 'selenium-webdriver';

/** What the app keeps on the device, asked of the browser that it is kept in. */

/** The app keeps what was done after this, ms: `THROTTLE_MS` of its store. */
const KEPT_AFTER_MS = 50;

/** For a script of a page: hands over the app’s memory, or null where there is none yet; to open it would make an empty one. */
const MEMORY = `
  const memory = (mode) => indexedDB.databases().then((all) => all.some(({ name }) => name === 'keyval-store') ? new Promise((found) => {
    indexedDB.open('keyval-store').onsuccess = ({ target }) => found(target.result.transaction('keyval', mode).objectStore('keyval'));
  }) : null);`;

/** Waits until all that was done so far is kept: no hand leaves a page as quickly as a check does. */
export async function settle(driver: WebDriver): Promise<void> {
  const isOurs = await driver.executeScript<boolean>("return location.protocol.startsWith('http')");
  if (!isOurs) return;
  // What the app writes stands in the same line, before this look.
  await driver.executeAsyncScript(
    `${MEMORY}
     const done = arguments[arguments.length - 1];
     setTimeout(() => memory('readwrite').then((kept) => kept ? (kept.count().onsuccess = done) : done()), ${2 * KEPT_AFTER_MS});`,
  );
}

/** One part of the app’s memory as it is kept, null where it is not. */
export async function keptPart(driver: WebDriver, part: string): Promise<unknown> {
  const text = await driver.executeAsyncScript<string | null>(
    `${MEMORY}
     const done = arguments[arguments.length - 1];
     memory('readonly').then((kept) => {
       if (kept === null) return done(null);
       kept.get('yosoku-' + arguments[0]).onsuccess = ({ target: { result } }) =>
         done(result === undefined ? null : typeof result === 'string' ? result : JSON.stringify(result));
     });`,
    part,
  );
  return text === null ? null : (JSON.parse(text) as unknown);
}

/**
 * Nothing is left of what the device has kept, but who is signed in, if the server knows him still. The app must not be on the screen: it would write again what
 * it has in mind.
 */
export const forget = (driver: WebDriver): Promise<void> =>
  driver.executeAsyncScript(
    `${MEMORY}
     const done = arguments[arguments.length - 1];
     const drop = (name) => new Promise((dropped) => { indexedDB.deleteDatabase(name).onsuccess = dropped; });
     fetch('/api/session').then(({ ok }) =>
       indexedDB.databases()
         .then((all) => Promise.all(all.map(({ name }) => name).filter((name) => name !== 'keyval-store').map(drop)))
         .then(() => memory('readwrite'))
         .then((kept) => {
           if (kept === null) return done();
           kept.transaction.oncomplete = done;
           kept.getAllKeys().onsuccess = ({ target: { result } }) =>
             result.filter((key) => !ok || key !== 'yosoku-session').forEach((key) => kept.delete(key));
         }));`,
  );
