import { gzipSync } from 'node:zlib';
import { type Board, boardOf } from '@yosoku/core/report/board';
import { derive } from '@yosoku/core/report/report';
import { makePaper } from '@yosoku/core/paper/make-paper';
import type { PaperWish } from '@yosoku/core/paper/wish';
import type { Entry } from '@yosoku/core/record/entry';
import { readEntries } from '../builds/logbook';
import { MOST_POINTS, pointsIn } from '../builds/points';
import { renewSummary } from '../builds/summary';
import { type TakenIn, takeIn } from '../builds/take-in';
import type { Db } from '../db/database';
import { type Printing, printSheet } from '../documents/build-sheet';
import { printedPhotos } from '../documents/photo-pages';
import { readLogo, type Logo } from '../letterhead/read-logo';
import { readLetterhead } from '../letterhead/store';
import { tryLogo } from '../documents/letterhead-part';
import { codeOf } from '../documents/code-of';
import { drawSheets } from '../documents/draw-sheets';
import { printPistonSheet } from '../documents/piston-sheet';
import { readPhotos } from '../photos/store';
import type { Account } from '../sign-in/account';
import { Problem } from '../web/problem';

/** All entries of a build. Throws a problem when it holds more than is worked through. */
async function readWhole(db: Db, buildId: string): Promise<readonly Entry[]> {
  const entries = await readEntries(db, buildId);
  const points = pointsIn(entries);
  if (points > MOST_POINTS)
    throw new Problem(
      422,
      'Too much',
      `The traces of this build have ${points} points in all; at most ${MOST_POINTS} are worked through. Its readings are kept: export it, and make a build of each part.`,
    );
  return entries;
}

/** What a task gives beside its words may be megabytes: it comes back in pieces, see `worker.ts`. */
export interface WithBytes {
  readonly bytes: Uint8Array;
}

/** Everything that may take long, by name: done away from the process that answers requests. Builds are scoped to their shop before. */
export const makeTasks = (db: Db) => ({
  /** JSON of what is answered for the Report of a build, compressed: with traces it is tens of megabytes. The report is null without a description. */
  report: async ({ buildId }: { readonly buildId: string }): Promise<WithBytes> => ({
    bytes: gzipSync(JSON.stringify({ report: derive([...(await readWhole(db, buildId))]) }), { level: 4 }),
  }),

  /** The sheet of a build as PDF, and the build's name; with angles the one for the piston maker. */
  sheet: async ({
    buildId,
    shopId,
    printing: asked,
    angles,
  }: {
    readonly buildId: string;
    readonly shopId: string;
    readonly printing: Omit<Printing, 'letterhead'>;
    readonly angles?: readonly number[];
  }): Promise<WithBytes & { readonly name: string }> => {
    const report = derive([...(await readWhole(db, buildId))]);
    if (!report) throw new Problem(422, 'Nothing to print', 'This logbook does not say what engine it is.');
    const printing = { ...asked, letterhead: await readLetterhead(db, shopId) };
    const pictures = printedPhotos(report).map(({ picture }) => picture);
    const pdf = await (angles
      ? printPistonSheet(report, printing, angles)
      : printSheet(report, printing, await readPhotos(db, buildId, pictures)));
    return { name: report.build.name, bytes: new Uint8Array(pdf) };
  },

  /** Wheel, tape, printer check or worksheet as PDF: of a build, or of none. */
  paper: async ({
    buildId,
    wish,
    shopName,
    address,
  }: {
    readonly buildId: string | null;
    readonly wish: PaperWish;
    readonly shopName: string;
    readonly address: string;
  }): Promise<WithBytes & { readonly name: string }> => {
    const report = buildId === null ? null : derive([...(await readWhole(db, buildId))]);
    const made = makePaper(wish, report, codeOf(address));
    if (!made.ok) throw new Problem(422, 'Nothing to print', `${made.problem.message} ${made.problem.remedy}`);
    const { name, sheets } = made.printed;
    const pdf = await drawSheets(sheets, { title: report?.build.name ?? name, author: shopName });
    return { name: report === null ? name : `${name} ${report.build.name}`, bytes: new Uint8Array(pdf) };
  },

  /** A logo that somebody sent, checked, written anew and tried on paper. Throws a problem where it is none. */
  logo: async ({ file }: { readonly file: Uint8Array }): Promise<Logo> => {
    const read = readLogo(file);
    if (!read.ok) throw new Problem(422, 'No such logo', read.message);
    if (!(await tryLogo(read.logo)))
      throw new Problem(422, 'No such logo', 'This drawing could not be printed. Make it simpler, or send it as PNG.');
    return read.logo;
  },

  /** What a screen across the shop shows of a build. */
  board: async ({ buildId }: { readonly buildId: string }): Promise<{ readonly shown: Board | null }> => {
    const entries = await readWhole(db, buildId);
    const report = derive([...entries]);
    return { shown: report && boardOf(report, entries) };
  },

  /** Works out anew what lists show of a build. */
  summary: ({ buildId }: { readonly buildId: string }): Promise<void> => renewSummary(db, buildId),

  /** Takes a build file into a shop. */
  takeIn: ({ account, file }: { readonly account: Account; readonly file: Uint8Array }): Promise<TakenIn> =>
    takeIn(db, account, new TextDecoder().decode(file), MOST_POINTS),
});

export type Tasks = ReturnType<typeof makeTasks>;
