import { createHash } from 'node:crypto';
import { readFile, readdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';

/**
 * The bundler puts everything that two pages share into one piece, which every page loads before anything else: the sign-in waited for schemas and
 * pictures that it never needs. That piece is cut in three here: what the first page needs; what a reading needs besides, and what follows from it;
 * the rest. A page brings along what it needs of the last two.
 */

const SCRIPTS = '_expo/static/js/web';
/** Pages that whoever is not signed in sees first, and the frames round them. */
const FIRST_PAGES = /^(_layout|sign-in|setup|code)-/;
/** The list, a build's frame and its readings, and what works out what follows from them. */
const WORK = /^(index|\[id\]|read|report|check-entry)-/;
/** Of the first, those that nearly every first visit needs. */
const EARLY = /^(_layout|sign-in)-/;
/** `__d(function(…){…},<id>,<ids of what it requires>);` */
const MODULE_END = /,(\d+),(\[(?:[\d,]|null)*\]|\{.*\})\);?\s*$/s;

/**
 * The modules of a piece.
 * @returns of each its id, what it requires, and its text.
 * @example modulesOf('__d(function(){},4,[7]);') // [{ id: 4, needs: [7], text: '__d(function(){},4,[7]);' }]
 */
export function modulesOf(piece) {
  return piece
    .split(/^(?=__d\(function)/m)
    .filter((text) => text.startsWith('__d('))
    .map((text) => {
      // What starts the program stands behind its last module.
      const [, id, list] = MODULE_END.exec(text.replace(/\n__r\([\s\S]*$/, '')) ?? [];
      if (id === undefined) throw new Error(`A module of the web app ends as none did before: ${text.slice(-120)}`);
      const needs = list.startsWith('[') ? JSON.parse(list) : ownNeeds(JSON.parse(list));
      // What may be missing, and is, stands as null.
      return { id: Number(id), needs: needs.filter((need) => need !== null), text };
    });
}

const ownNeeds = ({ paths: _paths, ...needs }) => Object.values(needs);

/** Ids that are reached from those, through the modules given. */
export function reachedFrom(roots, modules) {
  const byId = new Map(modules.map((module) => [module.id, module]));
  const reached = new Set();
  const waiting = [...roots];
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (reached.has(id)) continue;
    reached.add(id);
    waiting.push(...(byId.get(id)?.needs ?? []));
  }
  return reached;
}

/**
 * Loads with a page what it needs of the shared parts. All only define modules, so they may come in any order.
 * @param parts addresses of the parts, those that most pages need first.
 * @param few how many of them the pages need that do not need all.
 */
const lateLoader = (parts, few) => `(() => {
  const parts = ${JSON.stringify(parts)};
  const few = ${JSON.stringify(few)};
  const here = {};
  let load;
  Object.defineProperty(globalThis, '__loadBundleAsync', {
    configurable: true,
    get: () => load,
    set: (plain) => {
      const once = (part) =>
        (here[part] ??= plain(part).catch((error) => {
          delete here[part];
          throw error;
        }));
      load = (piece) => {
        const needed = parts.slice(0, few[piece] ?? parts.length);
        return Promise.all([plain(piece), ...needed.map(once)]).then(([loaded]) => loaded);
      };
    },
  });
})();
`;

/** Cuts the common piece of an exported app in three. Throws where it does not look as the bundler has made it so far. */
export async function splitFirstPage(folder) {
  const scripts = path.join(folder, SCRIPTS);
  const names = await readdir(scripts);
  const only = (start) => {
    const [name, ...more] = names.filter((each) => each.startsWith(start) && each.endsWith('.js'));
    if (name === undefined || more.length > 0) throw new Error(`The web app has no single piece ${start}.`);
    return name;
  };
  const read = (name) => readFile(path.join(scripts, name), 'utf8');
  const write = async (name, text) => {
    const file = `${name}-${createHash('sha256').update(text).digest('hex').slice(0, 32)}.js`;
    await writeFile(path.join(scripts, file), text);
    return `/${SCRIPTS}/${file}`;
  };
  const [common, entry] = [only('__common-'), only('entry-')];
  const firstPages = names.filter((name) => FIRST_PAGES.test(name) && name.endsWith('.js'));
  const shared = modulesOf(await read(common));
  const needsOf = async (name) => modulesOf(await read(name)).flatMap(({ needs }) => needs);
  const sharedBy = async (pieces) => reachedFrom((await Promise.all(pieces.map(needsOf))).flat(), shared);
  const first = await sharedBy([entry, ...firstPages]);
  const work = await sharedBy(names.filter((name) => WORK.test(name) && name.endsWith('.js')));
  const partOf = ({ id }) => (first.has(id) ? 0 : work.has(id) ? 1 : 2);
  const [now, ...later] = await Promise.all(
    ['__first', '__work', '__rest'].map((name, part) =>
      write(
        name,
        shared
          .filter((module) => partOf(module) === part)
          .map(({ text }) => text)
          .join(''),
      ),
    ),
  );
  const few = {};
  for (const name of names.filter((each) => each.endsWith('.js') && each !== common && each !== entry)) {
    const reached = await sharedBy([name]);
    const parts = Math.max(0, ...shared.filter(({ id }) => reached.has(id)).map(partOf));
    if (parts < later.length) few[`/${SCRIPTS}/${name}`] = parts;
  }
  const loader = await write('__late', lateLoader(later, few));
  const page = path.join(folder, 'index.html');
  const before = await readFile(page, 'utf8');
  const script = (src) => `<script src="${src}" defer></script>`;
  const after = before.replace(script(`/${SCRIPTS}/${common}`), () => `${script(loader)}${script(now)}`);
  if (after === before) throw new Error('The page of the web app does not load its common piece.');
  // They are asked for by name only when everything before them has run.
  const early = firstPages
    .filter((name) => EARLY.test(name))
    .map((name) => `<link rel="preload" as="script" href="/${SCRIPTS}/${name}">`);
  await writeFile(
    page,
    after.replace('</head>', () => `${early.join('')}</head>`),
  );
  await rm(path.join(scripts, common));
}
