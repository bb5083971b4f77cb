import { PHONE, openBrowser, signIn } from './browser';
import { framesWhileTurned } from './frames';

/** Prints, as JSON, how the practice engine is redrawn while a finger turns it: frames a second, and those in which piston and needle both moved. */
async function main(): Promise<void> {
  const browser = await openBrowser(process.env.BASE ?? '', PHONE);
  try {
    await signIn(browser, 'mara', 'layout-dye-demo');
    await browser.visit('/practice');
    await browser.press('begin-from-bare');
    await browser.find('[data-testid="practice-engine"]');
    // The dial on the piston: then both move all the time.
    await browser.press('tool-dial');
    await browser.press('tool-dial');
    const parts = ['[data-testid="piston"]', '[data-testid="needle"]'];
    console.log(JSON.stringify(await framesWhileTurned(browser, '[data-testid="practice-wheel"]', parts)));
  } finally {
    await browser.close();
  }
}

void main();
