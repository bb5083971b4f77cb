import type { Entry } from '@yosoku/core/record/entry';
import type { Hardware } from '@yosoku/core/timing-set/hardware';
import { millimetres } from '@yosoku/core/units/length';
import type { Pen } from './demo-logbook';

/** Ids of the pieces: a demo shop has its database to itself. */
export const PIECES = {
  keyways: '01930000-0000-7000-8000-000000000001',
  bushings: '01930000-0000-7000-8000-000000000002',
  slotted: '01930000-0000-7000-8000-000000000003',
  key: '01930000-0000-7000-8000-000000000004',
} as const;

export const NINE_KEYWAYS = {
  kind: 'keyways',
  stamped: 'crank',
  marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8],
} as const satisfies Hardware;
const SLOTTED = {
  kind: 'slotted-pulley',
  stamped: 'cam',
  range: 4,
  scale: true,
} as const satisfies Hardware;

/** Hardware of the demo shop, all of it invented. */
export const SHELF: readonly { readonly id: string; readonly name: string; readonly body: Hardware }[] = [
  { id: PIECES.keyways, name: 'Nine-keyway crank gear', body: { ...NINE_KEYWAYS, marks: [...NINE_KEYWAYS.marks] } },
  {
    id: PIECES.bushings,
    name: 'Bushing set, half to three degrees',
    body: { kind: 'bushings', stamped: 'cam', marks: [-3, -2, -1, -0.5, 0, 0.5, 1, 2, 3] },
  },
  { id: PIECES.slotted, name: 'Slotted belt pulley', body: SLOTTED },
  {
    id: PIECES.key,
    name: 'Stepped keys for the 32 mm shaft',
    body: {
      kind: 'offset-key',
      radius: millimetres(16),
      offsets: [millimetres(0.3), millimetres(0.6), millimetres(1)],
    },
  },
];

/** The twin-cam with a slotted pulley on each cam, so that its move can be planned. */
export function fitSlottedPulleys(entries: readonly Entry[], { nextId, builderId, startedAt }: Pen): Entry[] {
  const trial = entries.findLast((entry) => entry.kind === 'trial.begun');
  const [first] = entries;
  if (!trial || !first) return [...entries];
  const fitted: Entry = {
    id: nextId(),
    buildId: first.buildId,
    kind: 'drive.fitted',
    takenAt: startedAt.toISOString(),
    builderId,
    body: {
      replaces: null,
      trial: trial.id,
      camTurns: 'with-crank',
      parts: (['intake', 'exhaust'] as const).map((cam) => ({
        part: nextId(),
        name: `Slotted pulley, ${cam}`,
        library: PIECES.slotted,
        hardware: { ...SLOTTED },
        cam,
        bank: null,
        at: { at: 0 },
        experience: [],
      })),
    },
  };
  return [...entries, fitted];
}
