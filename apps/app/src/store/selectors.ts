import { createSelector } from '@reduxjs/toolkit';
import type { Entry } from '@yosoku/core/record/entry';
import { listHeadline, listPlace } from '@yosoku/core/report/list-headline';
import type { Report } from '@yosoku/core/report/report';
import { derive } from './arithmetic';
import type { BuildSummary } from './logbook-slice';
import type { RootState } from './store';

const NO_ENTRIES: readonly Entry[] = [];
const NO_BUILDS: readonly BuildSummary[] = [];

const selectWaiting = (state: RootState) => state.outbox.waiting;
const selectShopId = (state: RootState) => state.session.account?.shopId;

/** Waiting entries of the shop that is signed in; those of other shops stay on the device untouched. */
export const selectOwnWaiting = createSelector([selectWaiting, selectShopId], (waiting, shopId) =>
  waiting.filter((each) => each.shopId === shopId),
);

/** The same of pictures. */
export const selectOwnPhotosWaiting = createSelector(
  [(state: RootState) => state.photos.waiting, selectShopId],
  (waiting, shopId) => waiting.filter((each) => each.shopId === shopId),
);

/** A build's logbook as this device knows it: the server's entries, then what waits here; or that of a practice. */
export const selectEntries = createSelector(
  [
    (state: RootState, buildId: string) =>
      state.practice.runs[buildId]?.entries ?? state.logbook.known[buildId] ?? NO_ENTRIES,
    selectOwnWaiting,
    (_state: RootState, buildId: string) => buildId,
  ],
  (known, waiting, buildId): readonly Entry[] => {
    const mine = waiting.filter(({ entry }) => entry.buildId === buildId).map(({ entry }) => entry);
    if (mine.length === 0) return known;
    const ids = new Set(known.map((entry) => entry.id));
    return [...known, ...mine.filter((entry) => !ids.has(entry.id))];
  },
);

/** Everything that follows from a build's logbook; null while nothing of it is known here. */
export const selectReport = createSelector([selectEntries], (entries): Report | null => derive(entries));

/** The shop's builds: the server's list, with what this device knows better, and what the server has not heard of. */
export const selectBuilds = createSelector(
  [
    (state: RootState) => (state.session.account ? state.logbook.lists[state.session.account.shopId] : undefined),
    selectOwnWaiting,
    (state: RootState) => state.logbook.known,
  ],
  (list = NO_BUILDS, waiting, known): readonly BuildSummary[] => {
    const touched = [...new Set(waiting.map(({ entry }) => entry.buildId))];
    const here = touched.flatMap((buildId): BuildSummary[] => {
      const mine = waiting.filter(({ entry }) => entry.buildId === buildId).map(({ entry }) => entry);
      const report = derive([...(known[buildId] ?? []), ...mine]);
      if (!report) return [];
      const { build } = report;
      return [
        {
          id: buildId,
          name: build.name,
          place: listPlace(report),
          headline: listHeadline(report),
          updatedAt: mine.at(-1)?.takenAt ?? '',
        },
      ];
    });
    const ids = new Set(here.map((each) => each.id));
    return [...here.reverse(), ...list.filter((each) => !ids.has(each.id))];
  },
);
