import { type Href, Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { StationBody } from '@/features/builds/station-body';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import { useStationWidth } from '@/features/builds/use-station-width';
import { useShortcuts } from '@/features/entry/use-shortcuts';
import { Balance } from '@/pictures/balance';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { ViewList } from '@/features/read/view-list';
import { DrawnCheck } from './drawn-check';
import { FaultList } from './fault-list';
import { History } from './history';
import { NextTrial } from './next-trial';

/** Decide: how far and which way, in one sentence, with what it rests on. */
export function DecideStation({ report, write, undo }: StationProps) {
  const { verdict, target, trials, build } = report;
  const wide = useWide();
  const width = useStationWidth();
  const router = useRouter();
  const [why, setWhy] = useState(false);
  const [moving, setMoving] = useState(false);
  const trial = trials.at(-1);
  const lacking = report.stations.find(
    ({ station, state }) => station !== 'decide' && station !== 'prepare' && state !== 'done',
  )?.station;
  const goOn = (): void => {
    if (verdict.kind === 'move' || verdict.kind === 'leave') setMoving(true);
    else router.replace(placeHref(build.id, lacking ?? 'read'));
  };
  useShortcuts({ Enter: goOn, n: goOn, u: () => undo?.(), w: () => setWhy(!why) });

  return (
    <StationBody
      footer={
        moving ? (
          <NextTrial report={report} write={write} onDone={() => setMoving(false)} />
        ) : verdict.kind === 'move' ? (
          <PrimaryButton testID="moved" label="I have moved the cam" onPress={() => setMoving(true)} />
        ) : verdict.kind === 'leave' ? (
          <OnTarget sheet={placeHref(build.id, 'sheet')} onMoved={() => setMoving(true)} />
        ) : (
          <PrimaryButton
            testID="next"
            label={lacking ? `Go to ${STATION_NAMES[lacking]}` : 'Measure again'}
            onPress={goOn}
          />
        )
      }
    >
      <View className="gap-3 px-4 wide:px-0 pb-4 pt-4">
        <Words
          look="title"
          level={1}
          testID="verdict"
          className={wide ? 'text-[36px] leading-[42px]' : 'text-[32px] leading-[37px]'}
        >
          {verdict.headline}
        </Words>
        <Words look="sentence" testID="action">
          {verdict.action}
        </Words>
        {report.card.remark ? <Notice kind="warning" message={report.card.remark} /> : null}
        {verdict.kind === 'move' ? (
          <Words look="soft">
            Turn the engine over by hand, two full turns, after any move; stop at any resistance. A move changes the
            clearance between valves and pistons: check it before the engine runs, as the engine maker’s manual says.
          </Words>
        ) : null}
      </View>
      {trial?.cams.map((each) => (
        <View key={each.cam} className="items-center" testID={`cam-${each.cam}`}>
          {each.cam === 'single' ? null : (
            <Words look="heading" level={2} className="w-full px-4 wide:px-0">
              {each.cam === 'intake' ? 'Intake cam' : 'Exhaust cam'}
            </Words>
          )}
          <Balance
            delta={each.verdict.delta ?? 0}
            expanded={each.verdict.expanded}
            limit={target.limit}
            marks={trial.views.flatMap(({ delta, valve }) =>
              delta === null || (each.cam !== 'single' && valve !== each.cam) ? [] : [{ delta, valve }],
            )}
            width={Math.min(width - 24, 640)}
            description={`Beam scale. ${each.verdict.headline} Limit ${decimal(target.limit, 1)}° either way.`}
          />
        </View>
      ))}
      <View className="px-4 wide:px-0">
        {trial ? <FaultList faults={trial.faults} /> : null}
        {trial ? <ViewList views={trial.views} /> : null}
        <View className="flex-row flex-wrap items-center justify-between gap-x-4 py-1">
          <QuietButton label={why ? 'Hide why' : 'Why?'} testID="why" onPress={() => setWhy(!why)} />
          <Link
            testID="what-if"
            href={placeHref(build.id, 'what-if')}
            replace
            className="px-2 py-3 font-medium text-[17px] text-brass"
          >
            What if it were moved?
          </Link>
          {undo ? <QuietButton label="Undo" testID="undo" onPress={undo} /> : null}
        </View>
        {why ? (
          <View className="gap-2 pb-4">
            <Words look="soft" testID="why-text">
              {verdict.why}
            </Words>
            {trial?.cams.map(({ cam, budget, chance, verdict: its }) => (
              <View key={cam} className="gap-1">
                <Words look="soft">
                  {`${cam === 'single' ? 'The' : cam === 'intake' ? 'The intake’s' : 'The exhaust’s'} uncertainty, by where it comes from (one standard deviation): ${budget
                    .filter(({ standard }) => standard >= 0.005)
                    .map(({ from, standard }) => `${from} ${computedDegrees(standard, 2)}`)
                    .join(', ')}. Healthy readings differ more than these do in ${percent(chance)} of cases.`}
                </Words>
                {/* Another figure: what was drawn for the one before is forgotten. */}
                <DrawnCheck
                  key={`${trial.id} ${its.delta} ${its.expanded}`}
                  buildId={build.id}
                  trial={trial.id}
                  cam={cam === 'exhaust' ? 'exhaust' : 'intake'}
                />
              </View>
            ))}
          </View>
        ) : null}
        <History report={report} />
      </View>
    </StationBody>
  );
}

/** A chance in words that do not pretend: "37 %", "less than 1 %". */
const percent = (chance: number): string => (chance < 0.01 ? 'less than 1 %' : `${decimal(100 * chance, 0)} %`);

/** The cam sits where it shall: keep the record. */
function OnTarget({ sheet, onMoved }: { readonly sheet: Href; readonly onMoved: () => void }) {
  return (
    <View className="flex-row flex-wrap justify-between gap-x-4 border-t border-hairline px-4 wide:px-0 py-2">
      <Link href={sheet} className="px-2 py-3 font-medium text-[17px] text-brass">
        The sheet, and the file to keep
      </Link>
      <QuietButton label="The cam was moved after all" onPress={onMoved} />
    </View>
  );
}

const STATION_NAMES = { prepare: 'Prepare', zero: 'Zero', card: 'Card', read: 'Read', decide: 'Decide' } as const;
