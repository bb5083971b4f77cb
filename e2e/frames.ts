import type { Browser } from './browser';

const SECONDS = 3;
const SLOW_DOWN = 4;

/**
 * Goes round a picture with a pointer, moved at every frame as a finger's events come, on a processor slowed four times. Counted by the
 * browser's own animation frames: how many a second, and in how many of them every named part had moved.
 */
export async function framesWhileTurned(
  { driver: plain }: Browser,
  turned: string,
  parts: readonly string[],
): Promise<{ readonly fps: number; readonly redraws: number }> {
  const driver = plain as typeof plain & { sendDevToolsCommand(name: string, parameters: object): Promise<void> };
  await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
  await driver.manage().setTimeouts({ script: 60_000 });
  const { frames, moved } = await driver.executeAsyncScript<{ frames: number; moved: number }>(
    `const [turned, parts, seconds, done] = arguments;
     const seen = (css) => [...document.querySelectorAll(css)].find((each) => each.offsetParent);
     const wheel = seen(turned), all = parts.map(seen);
     const box = wheel.getBoundingClientRect();
     const fire = (type, angle) => wheel.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1,
       clientX: box.x + box.width / 2 + 90 * Math.sin(angle), clientY: box.y + box.height / 2 - 90 * Math.cos(angle) }));
     let frames = 0, moved = 0, last = [];
     fire('pointerdown', 0);
     const began = performance.now();
     requestAnimationFrame(function step(now) {
       frames += 1;
       fire('pointermove', (now - began) / 700);
       const drawn = all.map((part) => part.style.transform);
       if (drawn.every((each, at) => each !== last[at])) moved += 1;
       last = drawn;
       if (now - began < seconds * 1000) requestAnimationFrame(step);
       else { fire('pointerup', 0); done({ frames, moved }); }
     });`,
    turned,
    parts,
    SECONDS,
  );
  return { fps: frames / SECONDS, redraws: moved / SECONDS };
}
