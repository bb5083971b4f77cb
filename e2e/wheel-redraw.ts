import { PHONE, openBrowser, signIn } from './browser';
import { framesWhileTurned } from './frames';
import { openBuild } from './places';

/** Prints, as JSON, how the wheel is redrawn while a finger turns it: frames a second, and those in which it had moved. */
async function main(): Promise<void> {
  const browser = await openBrowser(process.env.BASE ?? '', PHONE);
  try {
    await signIn(browser, 'mara', 'layout-dye-demo');
    await openBuild(browser, 'Alder', 'read');
    await browser.find('[data-testid="degree-wheel"]');
    const face = '[data-testid="degree-wheel"] > :first-child';
    console.log(JSON.stringify(await framesWhileTurned(browser, '[data-testid="degree-wheel"]', [face])));
  } finally {
    await browser.close();
  }
}

void main();
