import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import { readBuildFile } from '@yosoku/core/record/read-file';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { alderCreekFour, gannetTwin, kestrelPointSix, oldTarnEight, quarryHillFour } from './builds';
import { sorrelCrossEight } from './lash-build';
import { larkMillEight } from './signed-build';

/**
 * Worked figures that the trade's own explanations are given with (common practice, no source). They stand in checks of the core; engines of our own
 * invention, which people see, repeat none of them: two figures of one set in one place are no accident.
 */
const CHECK_VALUES: readonly (readonly number[])[] = [
  [10, 15, 12.5],
  [5, 50, 27.5],
  [200, 274, 237],
  [66, 153, 107],
  [64, 149, 106.5],
  [69, 158.5, 113.75],
  [160, 63, 111.5],
  [339, 235, 107],
  [21, 55, 256, 107],
  [303, 313, 114],
  [0.115, 106, 0.099, 110],
  [2.921, 106, 2.515, 110],
  [3.48, 5.7],
  [88.392, 144.78],
];
const ROOT = path.resolve(__dirname, '../../../..');

const repeated = (figures: readonly number[]): readonly (readonly number[])[] =>
  CHECK_VALUES.filter(
    (set) => set.filter((value) => figures.some((each) => Math.abs(each - value) < 0.006)).length >= 2,
  );

/** Every number in a part of an entry. */
function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (typeof value !== 'object' || value === null) return [];
  return Object.values(value).flatMap(numbersIn);
}

/** Figures that are looked at together: a pass, a round, each lobe of a card, the engine's sizes. */
function groupsOf(entries: readonly Entry[]): number[][] {
  const groups = new Map<string, number[]>();
  const add = (group: string, ...figures: number[]): void => {
    groups.set(group, [...(groups.get(group) ?? []), ...figures]);
  };
  for (const entry of entries) {
    if (entry.kind === 'zero.reading' && entry.body.wheel) add(entry.body.pass, entry.body.wheel.shows);
    if (entry.kind === 'reading.taken' && entry.body.wheel) add(entry.body.round, entry.body.wheel.shows);
    if (entry.kind === 'build.described') {
      const { stroke = 0, rod = 0 } = entry.body.engine;
      add(entry.id, stroke, rod, stroke / 25.4, rod / 25.4);
    }
    if (entry.kind === 'card.entered') {
      const { intake, exhaust, lobeSeparation = 0 } = entry.body;
      for (const lobe of [intake, exhaust]) add(uuidv7(), lobeSeparation, ...numbersIn(lobe));
    }
  }
  return [...groups.values()];
}

const pen = () => ({ nextId: uuidv7, builderId: uuidv7(), startedAt: new Date('2026-02-01T08:00:00Z') });

test('the list itself is seen through: a pair of its figures in one pass is found', () => {
  expect(repeated([21, 107, 3])).toEqual([[21, 55, 256, 107]]);
});

test.each([
  ['Kestrel Point', () => kestrelPointSix(pen())],
  ['Alder Creek', () => alderCreekFour(pen())],
  ['Old Tarn', () => oldTarnEight(pen())],
  ['Gannet', () => gannetTwin(pen())],
  ['Quarry Hill', () => quarryHillFour(pen())],
  ['Lark Mill', () => larkMillEight(pen())],
  ['Sorrel Cross', () => sorrelCrossEight(pen())],
  [
    'the example file',
    () => {
      const read = readBuildFile(readFileSync(path.join(ROOT, 'docs/example.yosoku.json'), 'utf8'));
      if (!read.ok) throw new Error(read.message);
      return read.file.entries;
    },
  ],
])('%s is of our own invention', (_name, entries) => {
  for (const group of groupsOf(entries())) expect([group, repeated(group)]).toEqual([group, []]);
});

test('the practice engine, the examples of the format page and of the bench box are of our own invention', () => {
  const { stroke = 0, rod = 0 } = PRACTICE_SIX.engine;
  expect(repeated([stroke / 25.4, rod / 25.4])).toEqual([]);
  for (const lobe of [PRACTICE_SIX.card.intake, PRACTICE_SIX.card.exhaust])
    expect(repeated(numbersIn(lobe))).toEqual([]);
  for (const page of ['file-format.md', 'instruments.md'])
    for (const example of readFileSync(path.join(ROOT, 'docs', page), 'utf8').split('\n')) {
      const figures = [...example.matchAll(/-?\d+(?:\.\d+)?/g)].map(([text]) => Number(text));
      // A line of prose or a date has numbers of other kinds; the examples stand in braces.
      if (example.includes('{')) expect([example, repeated(figures)]).toEqual([example, []]);
    }
});

/** Every file of the sources that is no check. */
function* sources(folder: string): Generator<string> {
  for (const item of readdirSync(folder, { withFileTypes: true })) {
    const inner = path.join(folder, item.name);
    if (item.isDirectory()) yield* sources(inner);
    else if (/\.tsx?$/.test(item.name) && !item.name.includes('.test.')) yield inner;
  }
}

test('the examples in comments, and what fields offer, are of our own invention', () => {
  const found = ['packages/core/src', 'apps/app/src', 'apps/server/src']
    .flatMap((room) => [...sources(path.join(ROOT, room))])
    .flatMap((file) =>
      readFileSync(file, 'utf8')
        .split('\n')
        .filter((line) => /^\s*(\/?\*|\/\/)|placeholder|hint/.test(line))
        .map((line) => [...line.matchAll(/\d+(?:\.\d+)?/g)].map(([text]) => Number(text)))
        .flatMap((figures) => repeated(figures).map((set) => [path.relative(ROOT, file), set])),
    );
  expect(found).toEqual([]);
});
