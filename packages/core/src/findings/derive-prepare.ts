import { type CheckName, PREPARE_CHECKS, checksFor } from '../prepare/checks';
import { type PlayJudged, type ThrustKind, judgeEndPlay } from '../prepare/end-play';
import type { BodyOf } from '../record/entry';
import type { Build } from '../record/fold';

export interface CheckFinding {
  readonly check: CheckName;
  readonly title: string;
  readonly why: string;
  readonly caution: string | null;
  readonly state: 'due' | 'done' | 'skipped';
  readonly reason: string | null;
  readonly entry: string | null;
}

export interface PrepareFinding {
  readonly asItStands:
    | (Omit<BodyOf<'engine.as-it-stands'>, 'replaces' | 'springs' | 'oneWay' | 'camDrives'> & {
        readonly oneWay: boolean;
        readonly camDrives: 'distributor' | 'sensor' | 'neither' | null;
        readonly entry: string;
        readonly springs: 'checking' | 'valve' | 'none' | null;
      })
    | null;
  readonly checks: readonly CheckFinding[];
  readonly endPlay:
    | ({
        readonly entry: string;
        readonly thrust: ThrustKind;
        /** mm. */
        readonly play: number;
        readonly wanted: number | null;
      } & PlayJudged)
    | null;
}

/** The checks that this engine calls for, and what was answered. Empty until somebody has said how it stands. */
export function derivePrepare(build: Build): PrepareFinding {
  const stated = build.asItStands;
  const endPlay = build.endPlay;
  const played = endPlay && judgeEndPlay(endPlay.body, build.description.body.units);
  const names = stated ? checksFor(stated.body) : [];
  return {
    asItStands: stated && {
      ...withoutLink(stated.body),
      springs: stated.body.springs ?? null,
      oneWay: stated.body.oneWay ?? false,
      camDrives: stated.body.camDrives ?? null,
      entry: stated.id,
    },
    checks: names.map((check) => {
      const { title, why, caution } = PREPARE_CHECKS[check];
      const answer = build.checks.get(check);
      // A figure is a better answer than a tick.
      const measured = check === 'end-play' && played !== null && played.state !== 'unsure';
      return {
        check,
        title,
        why,
        caution,
        state: measured ? 'done' : (answer?.body.result ?? 'due'),
        reason: answer?.body.reason ?? null,
        entry: answer?.id ?? null,
      };
    }),
    endPlay: endPlay &&
      played && {
        entry: endPlay.id,
        thrust: endPlay.body.thrust,
        play: endPlay.body.play,
        wanted: endPlay.body.wanted ?? null,
        ...played,
      },
  };
}

const withoutLink = ({ replaces: _replaces, ...stated }: BodyOf<'engine.as-it-stands'>) => stated;
