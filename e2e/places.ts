import type { Browser } from './browser';

/** Another station of the build at hand: by its link as a builder would, or by its address where no link leads there. */
export async function goTo(browser: Browser, place: string): Promise<void> {
  const address = new URL(await browser.driver.getCurrentUrl()).pathname.replace(/[^/]+$/, place);
  if (await browser.isSeen(`[role=navigation] a[href="${address}"]`)) {
    await browser.pressAt(`[role=navigation] a[href="${address}"]`);
    await browser.find(`[role=navigation] a[href="${address}"][aria-current=page]`);
  } else await browser.visit(address);
}

/** A station of the build whose name says so, from the list as a builder would. */
export async function openBuild(browser: Browser, name: string, place: string): Promise<void> {
  if (new URL(await browser.driver.getCurrentUrl()).pathname !== '/') await browser.visit('/');
  await browser.find('[data-testid="build"]');
  const build = await browser.driver.executeScript<string | null>(
    `return [...document.querySelectorAll('a[data-testid=build]')]
       .find((link) => link.innerText.includes(arguments[0]))?.pathname.split('/')[2] ?? null`,
    name,
  );
  if (build === null) throw new Error(`no build is called ${name}`);
  // At which station it goes on may change under the hand, while another screen works on it.
  await browser.pressAt(`a[data-testid=build][href^="/builds/${build}/"]`);
  await browser.find('[role=navigation] a[aria-current=page]');
  await goTo(browser, place);
}

/** Answers a question with several answers by the words of one. */
export async function answer(browser: Browser, question: string, label: string): Promise<void> {
  await browser.pressText(label, `[data-testid="${question}"]`);
}
