import { PHONE, openBrowser, signIn } from './browser';

/**
 * Prints, as JSON, how the practice engine is redrawn while a finger turns it on a phone whose processor is slowed four times:
 * frames per second over three seconds, and in how many of them piston and needle both moved.
 */
const SECONDS = 3;
const SLOW_DOWN = 4;

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
    const driver = browser.driver as typeof browser.driver & {
      sendDevToolsCommand(name: string, parameters: object): Promise<void>;
    };
    await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
    await driver.manage().setTimeouts({ script: 60_000 });
    const figures = await driver.executeAsyncScript<{ frames: number; moved: number }>(
      `const [seconds, done] = arguments;
       const part = (id) => [...document.querySelectorAll('[data-testid="' + id + '"]')].find((each) => each.offsetParent);
       const wheel = part('practice-wheel'), piston = part('piston'), needle = part('needle');
       const box = wheel.getBoundingClientRect();
       const fire = (type, angle) => wheel.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1,
         clientX: box.x + box.width / 2 + 90 * Math.sin(angle), clientY: box.y + box.height / 2 - 90 * Math.cos(angle) }));
       let frames = 0, moved = 0, last = '';
       fire('pointerdown', 0);
       const began = performance.now();
       requestAnimationFrame(function step(now) {
         frames += 1;
         fire('pointermove', (now - began) / 500);
         const drawn = piston.style.transform + '|' + needle.style.transform;
         const [a, b] = drawn.split('|'), [c, d] = last.split('|');
         if (a !== c && b !== d) moved += 1;
         last = drawn;
         if (now - began < seconds * 1000) requestAnimationFrame(step);
         else { fire('pointerup', 0); done({ frames, moved }); }
       });`,
      SECONDS,
    );
    console.log(JSON.stringify({ fps: figures.frames / SECONDS, redraws: figures.moved / SECONDS }));
  } finally {
    await browser.close();
  }
}

void main();
