/** What is asked of the page itself, in one question each. */

/**
 * What matches a selector and can be seen, first in the page. In one question, and answered by the browser itself: the driver's own ways of asking, element
 * by element, cost the processor more than the app that is looked at.
 */
export const SEEN = `
  const hasSize = (each) => { const { width, height } = each.getBoundingClientRect(); return width > 0 && height > 0; };
  const isSeen = (each) =>
    each.checkVisibility({ opacityProperty: true, visibilityProperty: true }) &&
    (hasSize(each) || [...each.querySelectorAll('*')].some(hasSize));
  const seen = (css) => [...document.querySelectorAll(css)].find(isSeen) ?? null;`;

/** What is waited for is looked for this often, and in the page itself this long before it is asked anew, ms. */
export const LOOK_MS = 50;
const IN_PAGE_MS = 2_000;

/**
 * Waits in the page itself until there is something: to have the driver ask again and again costs the processor as much as the app that is looked at.
 * @param look what is looked for, as an expression of the page; null where it is not there yet, which the script answers when nothing comes.
 */
export const waitInPage = (look: string): string => `
  ${SEEN}
  const done = arguments[arguments.length - 1];
  const until = performance.now() + ${IN_PAGE_MS};
  const lookFor = () => {
    const found = ${look};
    if (found !== null || performance.now() > until) done(found);
    else setTimeout(lookFor, ${LOOK_MS});
  };
  lookFor();`;

/** For a script of a page, where `element` is what a press is meant for: nothing else feels it, and `endPress` says whether it was met. */
const GUARD = `
  let met = false;
  const PARTS = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'];
  const guard = (event) => {
    if (!element.contains(event.target)) {
      event.preventDefault();
      event.stopImmediatePropagation();
    } else if (event.type === 'click') met = true;
  };
  for (const part of PARTS) window.addEventListener(part, guard, { capture: true });
  window.endPress = () => {
    for (const part of PARTS) window.removeEventListener(part, guard, { capture: true });
    delete window.endPress;
    return met;
  };`;

/**
 * Where a finger would press: the middle of what can be seen of it, once it stands still and nothing lies on top; otherwise why not, or nothing where there is no
 * such thing. From then on the page feels that press alone.
 * @param candidates what may be meant, as an expression of the page.
 */
export const placeToPress = (candidates: string): string => `
  ${SEEN}
  window.endPress?.();
  const done = arguments[arguments.length - 1];
  const until = performance.now() + ${IN_PAGE_MS};
  const middle = (from, to, most) => Math.round((Math.max(0, from) + Math.min(most, to)) / 2);
  const placeOf = (element) => {
    const { left, top, right, bottom } = element.getClientRects()[0] ?? element.getBoundingClientRect();
    return { x: middle(left, right, innerWidth), y: middle(top, bottom, innerHeight) };
  };
  const aim = () => {
    const notYet = (why) => (performance.now() > until ? done(why) : setTimeout(aim, ${LOOK_MS}));
    const element = (${candidates}).find(isSeen);
    if (!element) return notYet('');
    element.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    const before = placeOf(element);
    requestAnimationFrame(() => requestAnimationFrame(() => {
      if (!element.isConnected) return notYet('it has just gone');
      const { x, y } = placeOf(element);
      if (x !== before.x || y !== before.y) return notYet('it still moves');
      const on = document.elementFromPoint(x, y);
      if (!element.contains(on)) return notYet('covered by ' + (on?.outerHTML ?? 'nothing').slice(0, 120));
      ${GUARD}
      done({ x, y });
    }));
  };
  aim();`;
