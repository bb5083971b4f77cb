import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { alderCreekFour, gannetTwin, kestrelPointSix, oldTarnEight, quarryHillFour } from './builds';
import type { Pen } from './demo-logbook';
import { sorrelCrossEight } from './lash-build';
import { larkMillEight } from './signed-build';

/** Whole jobs with all that belongs to them: drives and moves, traces, phasers, rockers, lash, photos, signatures. */
test.each([
  ['Kestrel Point', kestrelPointSix],
  ['Alder Creek', alderCreekFour],
  ['Old Tarn', oldTarnEight],
  ['Gannet', gannetTwin],
  ['Quarry Hill', quarryHillFour],
  ['Lark Mill', larkMillEight],
  ['Sorrel Cross', sorrelCrossEight],
] as readonly (readonly [string, (pen: Pen) => Entry[]])[])(
  '%s says the same after each entry as it does opened at it',
  (_name, make) => {
    const entries = make({ nextId: uuidv7, builderId: uuidv7(), startedAt: new Date('2026-02-01T08:00:00Z') });
    for (let until = 1; until <= entries.length; until += 1) {
      const some = entries.slice(0, until);
      expect([until, derive(some)]).toEqual([until, derive(structuredClone(some))]);
    }
  },
);
