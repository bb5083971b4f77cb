import type { Checked } from '@yosoku/core/problem';
import { MM_PER_INCH } from '@yosoku/core/units/length';
import { SaxesParser, type SaxesAttributeNS, type SaxesTagNS } from 'saxes';

const SVG = 'http://www.w3.org/2000/svg';
const XLINK = 'http://www.w3.org/1999/xlink';

/** What is printed of a drawing, SVG 1.1. Everything else is refused by name, or left out where it draws nothing. */
const DRAWN = new Set(
  'svg g defs symbol use path rect circle ellipse line polyline polygon linearGradient radialGradient stop clipPath mask pattern style'.split(
    ' ',
  ),
);
const DRAWS_NOTHING = new Set(['title', 'desc', 'metadata']);
const KEPT = new Set(
  (
    'id class style transform viewBox preserveAspectRatio width height x y x1 y1 x2 y2 cx cy r rx ry fx fy d points ' +
    'fill fill-opacity fill-rule stroke stroke-width stroke-opacity stroke-linecap stroke-linejoin stroke-miterlimit stroke-dasharray stroke-dashoffset ' +
    'color opacity display visibility clip-path clip-rule mask overflow offset stop-color stop-opacity ' +
    'gradientUnits gradientTransform spreadMethod patternUnits patternContentUnits patternTransform clipPathUnits maskUnits maskContentUnits'
  ).split(' '),
);
/** Of elements, also after each call has been followed: no logo has more, and a drawing of a few lines can call for billions. */
const MOST_DRAWN = 20_000;
const DEEPEST = 40;
const DEEPEST_CALLS = 200;

export type CleanSvg = Checked<{ readonly svg: string; readonly width: number; readonly height: number }>;

/** Why a drawing is not taken, in words. */
class Refused extends Error {}

const noDrawing = (): Refused => new Refused('This is no SVG drawing, or it is damaged.');
const callsOutside = (): Refused =>
  new Refused('This drawing calls for something that is not in it. Save it with everything inside, or send it as PNG.');
const tooDeep = (): Refused => new Refused('This drawing is nested too deeply. Make it simpler.');

const REMEDY: Readonly<Record<string, string>> = {
  script: 'There is script in this drawing. A logo has none: save it from the drawing program as plain SVG.',
  image: 'There is a picture inside this drawing. Send that picture itself, as PNG.',
  text: 'There are letters in this drawing, whose font the paper may not have. Turn them into paths in the drawing program, and save it again.',
  a: 'There is a link in this drawing. Take it out, and save it again.',
};

const refuseElement = (name: string): Refused => {
  const known = REMEDY[/^(text|tspan|textPath|font|font-face)$/.test(name) ? 'text' : name];
  return new Refused(
    known ??
      `“${name.slice(0, 40)}” in this drawing cannot be printed. Save it as plain SVG without effects, or send it as PNG.`,
  );
};

/** Styles and values may call for nothing outside of the drawing, and say nothing in a hidden way. */
function requirePlain(value: string): void {
  if (/[\\@]|expression|javascript:|<!--/i.test(value))
    throw new Refused(
      'A style in this drawing does more than colour it. Save it from the drawing program as plain SVG.',
    );
  if (/url\((?!\s*['"]?#)/i.test(value)) throw callsOutside();
}

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** An attribute as it is kept, or nothing. Throws where it could do harm. */
function keptAttribute({ uri, local, value }: SaxesAttributeNS): readonly [string, string] | null {
  if (/^on/i.test(local)) throw refuseElement('script');
  if (local === 'href' && (uri === '' || uri === XLINK)) {
    if (!value.startsWith('#')) throw callsOutside();
    return ['xlink:href', value];
  }
  if (uri !== '' || !KEPT.has(local)) return null;
  requirePlain(value);
  return [local, value];
}

const PIXELS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  mm: 96 / MM_PER_INCH,
  cm: 960 / MM_PER_INCH,
  in: 96,
};

/** A length of the drawing, pixels of CSS; null where it is none, or a share of what stands round it. */
function pixels(length: string | undefined): number | null {
  const [, figure = '', unit = ''] = /^\s*([\d.]+(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(length ?? '') ?? [];
  const per = PIXELS[unit.toLowerCase()];
  return figure === '' || per === undefined ? null : Number(figure) * per;
}

/** The box that is drawn: as it says, else as large as it is. */
function viewBoxOf(attributes: ReadonlyMap<string, string>): readonly number[] {
  const said = (attributes.get('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const box = said.length === 4 ? said : [0, 0, pixels(attributes.get('width')), pixels(attributes.get('height'))];
  const [x = NaN, y = NaN, width = NaN, height = NaN] = box.map((each) => each ?? NaN);
  if (![x, y, width, height].every(Number.isFinite) || width <= 0 || height <= 0 || Math.max(width, height) > 1e6)
    throw new Refused('This drawing does not say how large it is: it needs a viewBox, or a width and a height.');
  return [x, y, width, height];
}

interface Element {
  readonly id: string | null;
  /** Names of what it shows besides, or paints itself with. */
  readonly calls: readonly string[];
  readonly children: Element[];
}

/** What attributes call for, within the drawing. */
const callsIn = (attributes: ReadonlyMap<string, string>): readonly string[] =>
  [...attributes].flatMap(([name, value]) =>
    name === 'xlink:href'
      ? [value.slice(1)]
      : [...value.matchAll(/url\(\s*['"]?#([^'")\s]+)/g)].map(([, id = '']) => id),
  );

/** How much is drawn once every call has been followed. Throws at a circle, and as soon as it is too much. */
function requireBounded(root: Element): void {
  const byId = new Map<string, Element>();
  const list = (element: Element): void => {
    if (element.id !== null) byId.set(element.id, element);
    element.children.forEach(list);
  };
  list(root);
  const counted = new Map<Element, number>();
  const under = new Set<Element>();
  const count = (element: Element, depth = 0): number => {
    const known = counted.get(element);
    if (known !== undefined) return known;
    // Each may call the next: a chain of thousands is no logo either.
    if (depth > DEEPEST_CALLS) throw tooDeep();
    if (under.has(element)) throw new Refused('This drawing calls for itself, without end.');
    under.add(element);
    const called = element.calls.flatMap((id) => byId.get(id) ?? []);
    const all = [...element.children, ...called].reduce((sum, each) => sum + count(each, depth + 1), 1);
    if (all > MOST_DRAWN)
      throw new Refused(`This drawing has more than ${MOST_DRAWN} parts. Make it simpler, or send it as PNG.`);
    under.delete(element);
    counted.set(element, all);
    return all;
  };
  count(root);
}

/**
 * A drawing that somebody sent, written anew from what may stand in a logo: shapes, colours, gradients. Script, links, pictures and letters are refused, with what to do;
 * what draws nothing (data of the drawing program, comments) is left out.
 * Source: SVG 1.1 (Second Edition), W3C 2011, for the names; which of them are harmless is common practice, no source.
 *
 * @example cleanSvg('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 3"><path d="M0 0h4v3z"/></svg>') // ok, 4 wide, 3 high
 */
export function cleanSvg(text: string): CleanSvg {
  try {
    return { ok: true, ...rewritten(text) };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, message: error.message };
    throw error;
  }
}

function rewritten(text: string): { readonly svg: string; readonly width: number; readonly height: number } {
  const parser = new SaxesParser({ xmlns: true });
  const out: string[] = [];
  const open: Element[] = [];
  /** How deep in something that is left out. */
  let skipped = 0;
  let root: Element | null = null;
  let size = { width: 0, height: 0 };
  /** What a style has said so far; null outside of one. It comes in pieces, which mean something only together. */
  let style: string | null = null;
  parser.on('error', () => {
    throw noDrawing();
  });
  parser.on('doctype', (doctype) => {
    if (doctype.includes('['))
      throw new Refused('This drawing brings definitions of its own. Save it from the drawing program as plain SVG.');
  });
  parser.on('processinginstruction', ({ target }) => {
    if (/^xml-stylesheet$/i.test(target))
      throw new Refused('This drawing calls for a style sheet that is not in it. Save it with everything inside.');
  });
  parser.on('opentag', (tag: SaxesTagNS) => {
    if (skipped > 0 || (root !== null && (tag.uri !== SVG || DRAWS_NOTHING.has(tag.local)))) {
      // What is left out is not drawn, but script in it shows that this is not a logo.
      if (/^script$/i.test(tag.local)) throw refuseElement('script');
      skipped += 1;
      return;
    }
    if (tag.uri !== SVG || (root === null && tag.local !== 'svg')) throw noDrawing();
    if (!DRAWN.has(tag.local)) throw refuseElement(tag.local);
    if (open.length >= DEEPEST) throw tooDeep();
    const attributes = new Map(
      Object.values(tag.attributes).flatMap((each) => {
        const kept = keptAttribute(each);
        return kept ? [kept] : [];
      }),
    );
    const element: Element = { id: attributes.get('id') ?? null, calls: callsIn(attributes), children: [] };
    if (root === null) {
      root = element;
      const [x, y, width = 0, height = 0] = viewBoxOf(attributes);
      size = { width, height };
      attributes.set('viewBox', `${x} ${y} ${width} ${height}`).set('width', `${width}`).set('height', `${height}`);
    }
    open.at(-1)?.children.push(element);
    open.push(element);
    style = tag.local === 'style' ? '' : null;
    const own = out.length === 0 ? ` xmlns="${SVG}" xmlns:xlink="${XLINK}"` : '';
    out.push(`<${tag.local}${own}${[...attributes].map(([name, value]) => ` ${name}="${escaped(value)}"`).join('')}>`);
  });
  const write = (words: string): void => {
    if (skipped === 0 && style !== null) style += words;
  };
  parser.on('text', write);
  parser.on('cdata', write);
  parser.on('closetag', (tag: SaxesTagNS) => {
    if (skipped > 0) {
      skipped -= 1;
      return;
    }
    open.pop();
    if (style !== null) {
      requirePlain(style);
      out.push(escaped(style));
      style = null;
    }
    out.push(`</${tag.local}>`);
  });
  parser.write(text).close();
  if (root === null) throw noDrawing();
  requireBounded(root);
  return { svg: out.join(''), ...size };
}
