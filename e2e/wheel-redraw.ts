import { PHONE, openBrowser, signIn } from './browser';

/**
 * Prints, as JSON, how the wheel is redrawn while a finger turns it on a phone whose processor is slowed four times:
 * frames per second over three seconds of dragging, counted by the browser's own animation frames.
 */
const SECONDS = 3;
const SLOW_DOWN = 4;

async function main(): Promise<void> {
  const browser = await openBrowser(process.env.BASE ?? '', PHONE);
  try {
    await signIn(browser, 'mara', 'layout-dye-demo');
    await browser.find('[data-testid="build"]');
    const address = await browser.driver.executeScript<string>(
      `return [...document.querySelectorAll('a[data-testid=build]')].find((link) => link.innerText.includes('Alder')).getAttribute('href')`,
    );
    await browser.visit(address.replace(/[^/]+$/, 'read'));
    await browser.find('[data-testid="degree-wheel"]');
    const driver = browser.driver as typeof browser.driver & {
      sendDevToolsCommand(name: string, parameters: object): Promise<void>;
    };
    await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
    await driver.manage().setTimeouts({ script: 60_000 });
    // A pointer that goes round the wheel, moved at every frame as a finger's events come.
    const figures = await driver.executeAsyncScript<{ frames: number; moved: number }>(
      `const [seconds, done] = arguments;
       const wheel = [...document.querySelectorAll('[data-testid="degree-wheel"]')].find((each) => each.offsetParent);
       const box = wheel.getBoundingClientRect();
       const face = wheel.firstElementChild;
       const fire = (type, angle) => wheel.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1,
         clientX: box.x + box.width / 2 + 100 * Math.sin(angle), clientY: box.y + box.height / 2 - 100 * Math.cos(angle) }));
       let frames = 0, moved = 0, last = '';
       fire('pointerdown', 0);
       const began = performance.now();
       requestAnimationFrame(function step(now) {
         frames += 1;
         fire('pointermove', (now - began) / 900);
         const drawn = face.style.transform;
         if (drawn !== last) moved += 1;
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
