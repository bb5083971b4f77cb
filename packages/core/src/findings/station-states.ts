import { RULING_METHODS } from '../measure/read-methods';
import { STATIONS, type Station } from '../record/entries/stations';
import { placeAccepted } from './accepted';
import type { Findings } from './find-all';
import type { LashState } from './derive-lash';
import type { TrialFinding } from './derive-trial';
import type { ZeroState } from './derive-zero';

/** void: it was done, and holds no longer. */
export const STATION_STATES = ['due', 'begun', 'done', 'void'] as const;
export type StationState = (typeof STATION_STATES)[number];

/** The stations that this engine has: where the cam works on the valve itself there are no rockers. */
export const stationsOf = ({ rockers }: Findings): readonly Station[] =>
  STATIONS.filter((station) => station !== 'rockers' || rockers.applies);

/** How far the work has come at a station. */
export const stationState = (station: Station, found: Findings): StationState => STATE_OF[station](found);

const ZERO: Readonly<Record<ZeroState, StationState>> = {
  none: 'due',
  open: 'begun',
  found: 'begun',
  set: 'begun',
  rough: 'begun',
  proved: 'done',
  failed: 'void',
  void: 'void',
};

const LASH: Readonly<Record<LashState, StationState>> = {
  setting: 'begun',
  checking: 'begun',
  off: 'void',
  done: 'done',
};

const STATE_OF: Readonly<Record<Station, (found: Findings) => StationState>> = {
  prepare({ prepare }) {
    if (!prepare.asItStands) return 'due';
    return prepare.checks.every(({ state }) => state !== 'due') ? 'done' : 'begun';
  },
  zero: ({ zero }) => ZERO[zero.state],
  card({ aimed, build }) {
    if (aimed) return 'done';
    return build.card ? 'begun' : 'due';
  },
  read({ trial }) {
    const placing = placingViews(trial);
    if (placing.length > 0) return placing.some(({ proved }) => proved) ? 'done' : 'void';
    return (trial?.rounds.length ?? 0) + (trial?.traces.length ?? 0) > 0 ? 'begun' : 'due';
  },
  decide({ trial, accepted }) {
    const verdict = trial?.decision.verdict;
    if (!verdict) return 'due';
    return verdict.kind === 'leave' || placeAccepted(accepted) ? 'done' : 'begun';
  },
  move({ move }) {
    if (move.state === 'stay') return 'done';
    return move.plans.length > 0 ? 'begun' : 'due';
  },
  prove({ proof, move }) {
    if (proof.state === 'nothing') return move.state === 'stay' ? 'done' : 'due';
    if (proof.state === 'proved' || proof.state === 'accepted') return 'done';
    return proof.state === 'off' ? 'void' : 'begun';
  },
  clear({ clearance, sign }) {
    if (clearance.some(({ state }) => state === 'tight')) return 'void';
    const enough = clearance.filter(({ state }) => state === 'enough').length;
    const ticked = sign.checks.find(({ check }) => check === 'clearance')?.state !== 'due';
    if (enough === clearance.length || ticked) return 'done';
    return enough > 0 ? 'begun' : 'due';
  },
  rockers({ rockers }) {
    if (rockers.valves.every(({ order }) => order !== null)) return 'done';
    return rockers.valves.some(({ trials, order }) => trials.length > 0 || order !== null) ? 'begun' : 'due';
  },
  lash({ lash, sign }) {
    const { job } = lash;
    if (job) return LASH[job.state];
    return sign.checks.find(({ check }) => check === 'lash')?.state !== 'due' ? 'done' : 'due';
  },
  sign({ sign }) {
    if (sign.closed) return 'done';
    return sign.checks.some(({ entry }) => entry !== null) ? 'begun' : 'due';
  },
};

/** Views that say where a cam sits. */
export const placingViews = (trial: TrialFinding | undefined): TrialFinding['views'] =>
  trial?.views.filter(({ method, valve }) => PLACES_CAM.has(method) && valve !== 'both') ?? [];

const PLACES_CAM: ReadonlySet<string> = new Set(RULING_METHODS);
