import { createHash } from 'node:crypto';
import { readFile, readdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';

/**
 * The bundler puts everything that two pages share into one piece, which every page loads before anything else: the sign-in waited for schemas and
 * pictures that it never needs. That piece is cut in two here: what the first page needs, and the rest, which is loaded with the first page that
 * is not among them.
 */

const SCRIPTS = '_expo/static/js/web';
/** Pages that whoever is not signed in sees first, and the frames round them. */
const FIRST_PAGES = /^(_layout|sign-in|setup|code)-/;
/** Of these, those that nearly every first visit needs. */
const EARLY = /^(_layout|sign-in)-/;
/** `__d(function(…){…},<id>,<ids of what it requires>);` */
const MODULE_END = /,(\d+),(\[[\d,]*\]|\{.*\})\);?\s*$/s;

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
      return { id: Number(id), needs, text };
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

/** Loads the rest before any page that is not among the first. Both only define modules, so they may come in either order. */
const lateLoader = (rest, first) => `(() => {
  const rest = ${JSON.stringify(rest)};
  const first = new Set(${JSON.stringify(first)});
  let load, here;
  Object.defineProperty(globalThis, '__loadBundleAsync', {
    configurable: true,
    get: () => load,
    set: (plain) => {
      load = (piece) => {
        if (first.has(piece)) return plain(piece);
        here ??= plain(rest).catch((error) => {
          here = undefined;
          throw error;
        });
        return Promise.all([here, plain(piece)]).then(([, loaded]) => loaded);
      };
    },
  });
})();
`;

/** Cuts the common piece of an exported app in two. Throws where it does not look as the bundler has made it so far. */
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
  const starts = await Promise.all([entry, ...firstPages].map(async (name) => modulesOf(await read(name))));
  const needed = reachedFrom(
    starts.flat().flatMap(({ needs }) => needs),
    shared,
  );
  const textOf = (modules) => modules.map(({ text }) => text).join('');
  const now = await write('__first', textOf(shared.filter(({ id }) => needed.has(id))));
  const rest = await write('__rest', textOf(shared.filter(({ id }) => !needed.has(id))));
  const loader = await write(
    '__late',
    lateLoader(
      rest,
      firstPages.map((name) => `/${SCRIPTS}/${name}`),
    ),
  );
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
