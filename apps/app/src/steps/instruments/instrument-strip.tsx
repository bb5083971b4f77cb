import CircleDot from 'lucide-react-native/icons/circle-dot';
import TriangleAlert from 'lucide-react-native/icons/triangle-alert';
import { useState } from 'react';
import { Text, View } from 'react-native';
import type { Valve } from '@yosoku/core/cam/card';
import { type WheelReading, formatReading, readingAt, ringPosition } from '@yosoku/core/crank/wheel';
import { syncAt, usualSense } from '@yosoku/core/instruments/sync';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { useShortcuts } from '@/ui/use-shortcuts';
import type { PracticeRun } from '@/store/practice-slice';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { type Instrument, type Showing, openInstrument } from '@/instruments/instrument';
import { plugIn, useInstrument } from '@/instruments/plugged-in';
import { PlugIn } from './plug-in';
import { StripKey } from './strip-key';
import { type Taken, type Wanted, holds, ringNow, standingOf, takeReading } from '@/instruments/take-reading';
import { useShowing } from '@/instruments/use-showing';
import { useStation } from '@/logbook/station';

export interface StripProps {
  readonly valve: Valve | null;
  readonly wanted: Wanted;
  /** What is typed as the wheel's reading, to sync the count by. */
  readonly typed: WheelReading | null;
  readonly onTake: (taken: Taken) => void;
  /** The draft that served to sync is done with. */
  readonly onSynced: () => void;
}

/** The instrument at a station: what it shows, and one key to take a reading; or which one is plugged in. */
export function InstrumentStrip({ onChosen, ...props }: StripProps & { readonly onChosen: () => void }) {
  const { id } = useStation().report.build;
  const instrument = useInstrument(id);
  return instrument ? <Live {...props} instrument={instrument} /> : <PlugIn buildId={id} onDone={onChosen} />;
}

/** The box of a practice engine comes with the practice. */
export async function plugInPractice(run: PracticeRun): Promise<void> {
  const { openPracticeBox } = await import('@/practice/all-practice');
  plugIn(run.id, openPracticeBox(run, 'usual', openInstrument));
}

const LOST: Readonly<Record<Exclude<Showing['condition'], 'live'>, string>> = {
  'nothing-yet': 'No signal yet.',
  lost: 'No signal for a second. What was recorded is safe.',
  behind: 'Its readings are late: wait until they are up to date.',
  'two-boxes': 'Two boxes are sending on its line. Unplug one.',
  'no-server': 'No connection to the server; trying again. What was recorded is safe.',
  unplugged: 'Its box is not plugged in. What was recorded is safe.',
};

/** Channel of the box for a valve: the second indicator is the exhaust’s, where there are two. */
export const channelOf = (valve: Valve | null, lifts: Showing['lifts']): 0 | 1 =>
  valve === 'exhaust' && lifts[1] !== null ? 1 : 0;

/** What the strip’s keys do, and what was said against it. */
function useStripKeys({ valve, wanted, typed, onTake, onSynced }: StripProps, instrument: Instrument) {
  const { report } = useStation();
  const showing = useShowing(instrument);
  const [said, setSaid] = useState<{ readonly why: string; readonly origin: number | null } | null>(null);
  const setTrouble = (why: string | null): void => setSaid(why === null ? null : { why, origin: showing.origin });
  // What was said of a count holds no longer when that has lost its origin.
  const trouble = said && (said.origin === null || said.origin === showing.origin) ? said.why : null;
  const standing = standingOf(report);
  const which = channelOf(valve, showing.lifts);
  const { sync, angle } = showing;
  const synced = holds(sync, showing, standing.setting);
  const reading = synced && angle !== null ? formatReading(readingAt(standing.ring, ringNow(sync, angle))) : null;
  const take = (): void => {
    const result = takeReading(instrument.showing(), which, wanted, standing);
    // That it is not synced is said already, and why.
    setTrouble(result.ok || (wanted.wheel && !synced) ? null : result.why);
    if (!result.ok) return;
    instrument.took(wanted.place, which);
    onTake(result.taken);
  };
  const toWheel = (): void => {
    const now = instrument.showing();
    // It is not the count that is missing: this stays said whatever that does.
    if (!typed) setSaid({ why: 'Enter the wheel reading first, then sync.', origin: null });
    else if (!now.steady || now.condition !== 'live')
      setTrouble('Hold the crank still: it cannot sync while it turns.');
    else {
      const sense = now.sync?.sense ?? usualSense(standing.rotation);
      instrument.syncTo({
        ...syncAt(now.steady.angle, ringPosition(typed), sense, now.origin),
        setting: standing.setting,
      });
      setTrouble(null);
      onSynced();
    }
  };
  const zero = (): void => {
    const { steady, condition } = instrument.showing();
    const raw = condition === 'live' ? (steady?.lifts[which] ?? null) : null;
    // Lines that come late tell of a place where it does not stand any more: the strip says so by itself.
    if (raw === null) setTrouble(steady ? null : 'Hold the crank still: it cannot be zeroed while it turns.');
    else {
      instrument.zeroAt(which, raw);
      setTrouble(null);
    }
  };
  useShortcuts({ i: take, t: toWheel, o: zero });
  return { showing, standing, which, synced, reading, trouble, take, toWheel, zero };
}

function Live(props: StripProps & { readonly instrument: Instrument }) {
  const { wanted, instrument } = props;
  const { report } = useStation();
  const { showing, standing, which, synced, reading, trouble, take, toWheel, zero } = useStripKeys(props, instrument);
  const live = showing.condition === 'live';
  const needsSync = wanted.wheel && !synced;
  const wheel = wanted.wheel ? (reading ?? 'not synced') : null;
  return (
    <View testID="instrument-strip" className="border-t border-hairline">
      <View className="flex-row flex-wrap items-center gap-x-2 px-3">
        <LiveSign live={live} />
        <View className="min-w-[200px] shrink grow">
          <Text
            testID="instrument-shows"
            className="font-figures-bold text-[20px] text-ink"
            style={{ fontVariant: ['tabular-nums'] }}
          >
            {live ? figuresOf(showing, which, wheel, standing.units) : '–'}
          </Text>
          <Words look="soft" numberOfLines={1}>
            {instrument.name + lostWords(showing)}
          </Words>
        </View>
        <View className="grow flex-row justify-end">
          {needsSync ? (
            <StripKey testID="instrument-sync" label="Sync" says="Sync with the wheel" onPress={toWheel} />
          ) : null}
          {showing.lifts[which] !== null && looksAtLift(wanted) ? (
            <StripKey
              testID="instrument-zero"
              label="Zero it"
              says="Zero it: the indicator, where it stands"
              onPress={zero}
            />
          ) : null}
          <StripKey testID="instrument-take" label="Take it" strong onPress={take} />
          <StripKey
            testID="instrument-away"
            label="✕"
            says="✕ Disconnect"
            onPress={() => plugIn(report.build.id, null)}
          />
        </View>
      </View>
      <StripTrouble showing={showing} trouble={trouble} needsSync={needsSync} />
    </View>
  );
}

function LiveSign({ live }: { readonly live: boolean }) {
  const theme = useTheme();
  return (
    <View aria-hidden>
      {live ? <CircleDot size={16} color={theme.intake} /> : <TriangleAlert size={18} color={theme.danger} />}
    </View>
  );
}

interface StripTroubleProps {
  readonly showing: Showing;
  /** What was said against a key. */
  readonly trouble: string | null;
  readonly needsSync: boolean;
}

/** Why nothing can be taken: there is no signal, a key was refused, or the count does not know the wheel yet. */
function StripTrouble({ showing, trouble, needsSync }: StripTroubleProps) {
  const { condition } = showing;
  const isLive = condition === 'live';
  const said = trouble ?? (needsSync ? unsyncedWords(showing) : null);
  const why = isLive ? said : LOST[condition];
  if (!why) return null;
  return (
    <Words
      look="label"
      role="alert"
      testID="instrument-trouble"
      tone={isLive && trouble === null ? 'ink' : 'danger'}
      className="px-3 pb-1"
    >
      {why}
    </Words>
  );
}

/** Is the indicator taken, or shown where it stands? */
const looksAtLift = ({ lift, shown }: Wanted): boolean => lift || shown !== null;

/** What it shows: the wheel, where that is read, and the indicator, where there is one. */
function figuresOf({ lifts, zero }: Showing, which: 0 | 1, wheel: string | null, units: LengthUnit): string {
  const lift = lifts[which];
  const shown = lift === null ? null : formatComputedLength(lift - zero[which], units).replace('-', '−');
  return [wheel, shown].filter((each) => each !== null).join('  ·  ');
}

function unsyncedWords({ lostBecause, origin, sync }: Showing): string {
  if (sync === null) return 'Enter the wheel reading, hold the crank still, and sync.';
  if (origin === 0) return 'The wheel was set since. Enter the wheel reading and sync again.';
  return lostBecause === 'jumped'
    ? 'Encoder position lost. Enter the wheel reading and sync again.'
    : 'The box has restarted its count. Enter the wheel reading and sync again.';
}

/** Of fewer, a share says nothing. */
const ENOUGH_LINES = 300;

/** How many of its lines do not arrive, in words; nothing where all do. */
function lostWords({ tally: { good, missing, damaged } }: Showing): string {
  const lost = missing + damaged;
  if (good <= ENOUGH_LINES || lost === 0) return '';
  return ` · ${Math.max(0.1, (100 * lost) / (good + lost)).toFixed(1)} % of its lines lost`;
}
