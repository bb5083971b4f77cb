import { useStation } from '@/logbook/station';
import { TextLink } from '@/ui/text-link';
import { UndoButton } from '@/ui/undo-button';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, formatLength } from '@yosoku/core/units/length';
import { StationBody } from '@/shell/station-body';
import { PLACE_NAMES, placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { useClosed } from '@/logbook/closed';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { FacingFields } from './facing-fields';
import { GapPlot } from './gap-plot';
import { GapTable } from './gap-table';
import { useSweep } from './use-sweep';

type Finding = Report['clearance']['valves'][number];

/** Clear: how near the valves come to the pistons as the cam stands, and how far it may still be moved. */
export function ClearStation() {
  const { report, undo } = useStation();
  const { clearance, build } = report;
  const router = useRouter();
  const next = report.rockers.applies ? 'rockers' : 'lash';
  const onward = (): void => router.replace(placeHref(build.id, next));
  useShortcuts({ n: onward, u: () => undo?.() });
  const tight = clearance.valves.filter(({ state }) => state === 'tight');
  const unknown = clearance.valves.filter(({ state }) => state === 'unknown');
  const sentence =
    tight.length > 0
      ? `Too near: ${tight.map(({ valve }) => valve).join(' and ')}. Do not run it like this.`
      : unknown.length === 0
        ? 'Both valves clear their pistons.'
        : 'How near do the valves come to the pistons?';
  useSpoken(sentence);
  return (
    <StationBody footer={<PrimaryButton testID="clear-next" label={`On to ${PLACE_NAMES[next]}`} onPress={onward} />}>
      <View className="max-w-[720px] gap-6 px-4 wide:px-0 pb-8 pt-4">
        <Words look="title" level={1} testID="sentence">
          {sentence}
        </Words>
        <Words look="soft">
          Degree first, then check clearance: every move changes it. It is tightest within about 15° of overlap TDC, the
          exhaust before it, the intake after. The least that is wanted here is a habit of the trade; the engine maker’s
          manual has the last word, and aluminium rods want more.
        </Words>
        {clearance.valves.map((finding) => (
          <ValveClearance key={finding.valve} finding={finding} />
        ))}
        <TextLink href={placeHref(build.id, 'pistons')} className="self-start py-2" testID="pistons-link">
          For the piston maker: piston and valves at any angle
        </TextLink>
        <View className="items-start">
          <UndoButton undo={undo} />
        </View>
      </View>
    </StationBody>
  );
}

interface ValveClearanceProps {
  readonly finding: Finding;
}

function ValveClearance({ finding }: ValveClearanceProps) {
  const { report } = useStation();
  const { valve, state, words, gaps, minimum, angle } = finding;
  const { id, units } = report.build;
  const width = useStationWidth();
  const sweep = useSweep(id, valve, state !== 'unknown');
  const closed = useClosed() !== null;
  return (
    <View className="gap-3 border-t border-hairline pt-3">
      <Words look="heading" level={2} tone={valve}>
        {valve === 'intake' ? 'Intake' : 'Exhaust'}
      </Words>
      {state === 'tight' ? (
        <Notice kind="danger" message="Too near" remedy={words} testID={`clearance-${valve}`} />
      ) : (
        <Words testID={`clearance-${valve}`}>{words}</Words>
      )}
      {sweep ? (
        <GapPlot sweep={sweep} valve={valve} minimum={minimum} units={units} width={Math.min(width - 32, 640)} />
      ) : state === 'unknown' ? null : (
        <Words look="soft">Sweeping crank and cam.</Words>
      )}
      <Measured gaps={gaps} units={units} />
      <Travel finding={finding} />
      {closed ? null : (
        <>
          <More
            label={angle === null ? `How ${valve} and piston face each other` : `Facing, and the least wanted`}
            testID={`facing-${valve}`}
          >
            <FacingFields valve={valve} />
          </More>
          <GapTable valve={valve} />
        </>
      )}
    </View>
  );
}

/** The gaps that were measured, each with its place. */
function Measured({ gaps, units }: { readonly gaps: Finding['gaps']; readonly units: LengthUnit }) {
  if (gaps.length === 0) return null;
  const placeOf = (at: number): string => (at === 0 ? 'TDC' : `${Math.abs(at)}° ${at < 0 ? 'before' : 'after'}`);
  return (
    <Words look="soft">
      {`Measured: ${gaps.map(({ at, gap }) => `${formatLength(gap, units)} at ${placeOf(at)}`).join(', ')}.`}
    </Words>
  );
}

/** What the lift of the valve was taken from, and what a lifter that pumps up adds to it. */
function Travel({ finding: { valve, state, lifts, pumped } }: ValveClearanceProps) {
  return (
    <>
      {state === 'unknown' || lifts === null ? null : (
        <Words look="soft" testID={`lifts-${valve}`}>
          {lifts}
        </Words>
      )}
      {pumped === null ? null : pumped.touches ? (
        <Notice kind="danger" message="Pumped up, they meet" remedy={pumped.words} testID={`pumped-${valve}`} />
      ) : (
        <Words testID={`pumped-${valve}`}>{pumped.words}</Words>
      )}
    </>
  );
}
