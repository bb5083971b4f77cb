import { useRouter } from 'expo-router';
import { Pressable, View } from 'react-native';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import { lobeSentence } from '@yosoku/core/report/report-lobes';
import type { Report } from '@yosoku/core/report/report';
import { sayFigures } from '@yosoku/core/report/spoken';
import { LengthPad, useLengthEntry } from '@/forms/length-pad';
import { useStation } from '@/logbook/station';
import { newId } from '@/logbook/use-logbook';
import { LobeStrip } from '@/pictures/lobe-strip';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { Instruments } from '@/steps/instruments/instruments';
import { Onward } from '@/steps/onward';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { SITS_ON } from './choose-reading';
import { useReadingChoice } from './use-reading-choice';
import { MOST_LIFT } from '@yosoku/core/record/entries/limits';

/** Larger lifts are no lobe’s, mm. */

interface Lobe {
  readonly cylinder: number;
  readonly valve: Valve;
}

/** Which lobe is read, and how it is written down. */
function useEveryLobe() {
  const { report, write } = useStation();
  const { build, read } = report;
  const choice = useReadingChoice(report);
  const router = useRouter();
  const { draft, change } = useDraft<'lobe'>(`${build.id}/every-lobe/${read.trial ?? 'first'}`);
  const chosen = lobeOf(draft.lobe);
  const choose = (next: Lobe | null): void => change({ lobe: next ? keyOf(next) : '' });
  const lobe = chosen ?? read.everyLobe.next;
  // What bends under full springs does not under light ones: lifts at the valve know which they were.
  const on = report.prepare.asItStands?.springs;
  const springs = choice.sitsOn === 'valve' && (on === 'checking' || on === 'valve') ? on : null;
  const record = (mm: number, box?: string): void => {
    if (!lobe) return;
    write('reading.taken', {
      setting: null,
      trial: read.trial ?? write('trial.begun', { after: null }),
      round: newId(),
      method: 'identity',
      cylinder: lobe.cylinder,
      valve: lobe.valve,
      sitsOn: choice.sitsOn,
      shows: { kind: 'peak-lift', lift: mm, ...(springs ? { springs } : {}) },
      approach: 'forward',
      wheel: null,
      ...(box ? { from: { box } } : {}),
    });
    choose(null);
  };
  const readCentreline = (): void => {
    if (!lobe) return;
    choice.choose({ method: 'centreline', valve: lobe.valve, cylinder: String(lobe.cylinder) });
    router.replace(placeHref(build.id, 'read'));
  };
  return {
    lobe,
    choose,
    choice,
    record,
    readCentreline,
    sentence: chosen ? lobeSentence(chosen, null) : read.everyLobe.sentence,
    decide: () => router.replace(placeHref(build.id, 'decide')),
  };
}

type Reading = ReturnType<typeof useEveryLobe>;

/** Every lobe of the engine, in the order of the fewest turns: its lift, and its centreline where that is wanted. */
export function EveryLobe() {
  const { report } = useStation();
  const { build, read, trials } = report;
  const reading = useEveryLobe();
  const { lobe, choice } = reading;
  const width = useStationWidth();
  useSpoken(sayFigures(reading.sentence));
  const at = choice.sitsOn === 'valve' ? 'valve' : 'lobe';
  const tables = (trials.at(-1)?.everyLobe ?? []).filter((table) => table.at === at);
  return (
    <StationBody
      footer={
        lobe ? <LobePad reading={reading} lobe={lobe} /> : <Onward label="See the verdict" onNext={reading.decide} />
      }
    >
      <View className="gap-4 px-4 wide:px-0 pb-4 pt-4 wide:max-w-[760px]">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {reading.sentence}
        </Words>
        <Words look="soft" testID="lobes-read">
          {`${read.everyLobe.read} of ${read.everyLobe.all} read. One that is read again is counted with both.`}
        </Words>
        {tables
          .flatMap(({ words }) => words)
          .map((said) => (
            <Words key={said} look="label" testID="lobe-words">
              {said}
            </Words>
          ))}
        {tables
          .filter(({ rows }) => rows.filter(({ lift }) => lift !== null).length > 1)
          .map((table) => (
            <LobeStrip key={table.valve} table={table} units={build.units} width={Math.min(width - 32, 728)} />
          ))}
        <LobeTable report={report} at={at} lobe={lobe} onChoose={reading.choose} />
        {lobe ? (
          <View className="items-start">
            <QuietButton
              testID="lobe-centreline"
              label={`Centreline of cylinder ${lobe.cylinder}, ${lobe.valve}`}
              onPress={reading.readCentreline}
            />
          </View>
        ) : null}
        <More testID="lobes-more" label="Where the indicator sits">
          <Choice
            testID="sits-on"
            label="The indicator sits on"
            options={SITS_ON}
            value={choice.sitsOn}
            onChange={(sitsOn) => choice.choose({ sitsOn })}
            hint="All on the same: lifts at lobes stand beside lifts at lobes, lifts at valves beside lifts at valves."
          />
        </More>
      </View>
    </StationBody>
  );
}

/** Entry of one lift. */
function LobePad({ reading, lobe }: { readonly reading: Reading; readonly lobe: Lobe }) {
  const { report, undo } = useStation();
  const { id, units } = report.build;
  const entry = useLengthEntry(`${id}/every-lobe-lift`, units);
  return (
    <View>
      <Instruments
        valve={lobe.valve}
        wanted={{ wheel: false, lift: true, shown: null, approach: 'any', place: `${lobe.cylinder} ${lobe.valve}` }}
        typed={null}
        onTake={({ lift, box }) => {
          if (lift === null) return;
          reading.record(Math.abs(lift), box);
          entry.clear();
        }}
        onSynced={entry.clear}
      />
      <LengthPad
        entry={entry}
        label="Lift at the peak"
        recordLabel={`Record cylinder ${lobe.cylinder}, ${lobe.valve}`}
        onRecord={reading.record}
        onUndo={undo}
        onNext={reading.decide}
        trouble={entry.mm !== null && entry.mm > MOST_LIFT ? 'No lobe lifts as much. Check the unit.' : null}
      />
    </View>
  );
}

const keyOf = ({ cylinder, valve }: Lobe): string => `${cylinder} ${valve}`;

/** A lobe out of a draft: "5 exhaust". */
function lobeOf(text: string | undefined): Lobe | null {
  const [cylinder = '', name = ''] = (text ?? '').split(' ');
  const valve = VALVES.find((each) => each === name);
  return valve ? { cylinder: Number(cylinder), valve } : null;
}

interface LobeTableProps {
  readonly report: Report;
  readonly at: 'lobe' | 'valve';
  /** The one that is being read. */
  readonly lobe: Lobe | null;
  readonly onChoose: (lobe: Lobe) => void;
}

/** Cylinders down in firing order, the two kinds across; each a tap away. */
function LobeTable({ report, at, lobe, onChoose }: LobeTableProps) {
  const { build, trials } = report;
  const found = trials.at(-1);
  const figureOf = (cylinder: number, valve: Valve): { readonly shows: string; readonly state: string } | null => {
    const row = found?.everyLobe
      .find((table) => table.valve === valve && table.at === at)
      ?.rows.find((each) => each.cylinder === cylinder);
    if (row)
      return {
        shows: [row.lift?.shows, row.centreline?.shows].filter(Boolean).join(' · '),
        state:
          [row.lift, row.centreline].find((each) => each?.state === 'differs' || each?.state === 'perhaps')?.state ??
          'same',
      };
    // The first of all stands alone yet, beside nothing.
    const alone = found?.rounds.findLast(
      (each) =>
        READ_METHODS[each.method].reads === 'peak-lift' &&
        each.cylinder === cylinder &&
        each.valve === valve &&
        (each.sitsOn === 'valve') === (at === 'valve') &&
        each.lift !== null,
    );
    return alone ? { shows: alone.readings.at(-1)?.shows ?? '', state: 'same' } : null;
  };
  return (
    <View role="table" aria-label="Lift of every lobe" testID="lobe-table">
      <View className="flex-row border-b border-line pb-1">
        <Words look="soft" className="w-[64px]">
          Cyl
        </Words>
        {VALVES.map((valve) => (
          <Words key={valve} look="label" tone={valve} className="flex-1">
            {valve === 'intake' ? 'Intake' : 'Exhaust'}
          </Words>
        ))}
      </View>
      {build.engine.firingOrder.map((cylinder) => (
        <View key={cylinder} className="flex-row border-b border-hairline">
          <Words look="figure" className="w-[64px] py-[11px]">
            {cylinder}
          </Words>
          {VALVES.map((valve) => {
            const figure = figureOf(cylinder, valve);
            const chosen = lobe?.cylinder === cylinder && lobe.valve === valve;
            return (
              <Pressable
                key={valve}
                role="button"
                testID={`lobe-${cylinder}-${valve}`}
                aria-label={`Cylinder ${cylinder}, ${valve}: ${figure?.shows ?? 'not read'}${SAID[figure?.state ?? 'same'] ?? ''}`}
                aria-pressed={chosen}
                onPress={() => onChoose({ cylinder, valve })}
                className={`min-h-[44px] flex-1 justify-center border-l-4 pl-2 ${chosen ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
              >
                <Words look="figure" tone={figure?.state === 'differs' ? 'danger' : figure ? 'ink' : 'soft'}>
                  {`${figure?.shows ?? '–'}${figure?.state === 'perhaps' ? ' ?' : figure?.state === 'differs' ? ' !' : ''}`}
                </Words>
              </Pressable>
            );
          })}
        </View>
      ))}
    </View>
  );
}

const SAID: Readonly<Record<string, string>> = { differs: ', differs from the others', perhaps: ', read it once more' };
