import { crankAngleAtDrop } from '../crank/slider-crank';
import { readingAt } from '../crank/wheel';
import type { BodyOf, Entry, EntryKind } from '../record/entry';
import { STOP_DEPTH } from '../simulation/whole-engine';
import { EXERCISES, type ExerciseName } from './exercises';
import type { Scenario } from './scenario';

/** What an opening is written with. */
export interface Quill {
  readonly newId: () => string;
  readonly buildId: string;
  readonly builderId: string;
  /** ISO time. */
  readonly now: string;
}

const SPRINGS = { solid: 'checking', bleeding: 'checking', sticking: 'none' } as const;
const LIFTER = { solid: null, bleeding: 'hydraulic', sticking: 'roller' } as const;

/**
 * The logbook that a practice begins with: what the engine is, its card, its target and its drive; TDC too, where the exercise has it proved.
 * Nothing in it gives the hidden truth away.
 */
export function openPractice(name: ExerciseName, scenario: Scenario, quill: Quill): Entry[] {
  const { base, engine } = scenario;
  const { newId, buildId, builderId, now } = quill;
  const entries: Entry[] = [];
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const id = newId();
    entries.push({ id, buildId, kind, body, takenAt: now, builderId } as Entry);
    return id;
  };
  write('build.described', {
    replaces: null,
    practice: true,
    name: EXERCISES[name].goal === 'free' ? base.name : EXERCISES[name].title,
    engine: base.engine,
    wheel: base.ring,
    ...(engine.rings ? { rings: [...engine.rings] } : {}),
    units: base.units,
  });
  const trial = write('trial.begun', { after: null });
  write('engine.as-it-stands', {
    replaces: null,
    head: engine.lash || engine.rockers ? 'on' : 'off',
    plugHole: true,
    wheel: base.ring.ring !== 'rim',
    indicator: true,
    lifter: LIFTER[engine.lifter.kind] ?? base.lifter,
    springs: engine.lash ? 'valve' : SPRINGS[engine.lifter.kind],
    drive: base.drive,
  });
  write('card.entered', { replaces: null, ...base.card });
  write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1 });
  write('drive.fitted', {
    replaces: null,
    trial,
    camTurns: 'with-crank',
    parts: base.parts.map((part) => ({ ...part, part: newId(), library: null, bank: null, experience: [] })),
  });
  if (engine.rockers)
    write('rockers.set-up', {
      replaces: null,
      mounted: 'stud',
      arm: engine.rockers.rocker.arm,
      tip: engine.rockers.tip,
      step: engine.rockers.step,
    });
  if (EXERCISES[name].tdc === 'proved') {
    const zero = write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
    const contacts = crankAngleAtDrop(engine.crank, STOP_DEPTH);
    const quarter = (degrees: number): number => Math.round(degrees * 4) / 4;
    const pass = (setting: string | null): void => {
      const together = { zero, setting, pass: newId() };
      for (const side of ['before', 'after'] as const)
        write('zero.reading', {
          ...together,
          side,
          wheel: readingAt(base.ring, quarter(scenario.mount + (contacts?.[side] ?? 0))),
        });
    };
    pass(null);
    const setting = write('zero.set', { zero, after: null, moved: 'nothing' });
    pass(setting);
  }
  return entries;
}
