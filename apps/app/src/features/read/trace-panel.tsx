import { useStation } from '@/logbook/station';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { formatComputedLength } from '@yosoku/core/units/length';
import { useStationWidth } from '@/shell/use-station-width';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { LeanPlot } from '@/pictures/lean-plot';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

type Trace = Report['trials'][number]['traces'][number];

interface TracePanelProps {
  readonly trace: Trace;
}

/** Points so far apart leave the nose between them open by more than a builder reads, crank degrees. */
const COARSE = 4;

/** A trace: its curve, what it tells, and the points that lie off their neighbours. */
export function TracePanel({ trace }: TracePanelProps) {
  const { report, write } = useStation();
  const { build, card } = report;
  const { valve, figures, problem, dots } = trace;
  const width = Math.min(useStationWidth() - 32, 680);
  const strays = dots.filter((dot) => dot.stray !== null);
  const nobody = { intake: null, exhaust: null };
  const length = (mm: number): string => formatComputedLength(mm, build.units);
  const leaveOut = (): void => {
    const places = strays.flatMap(({ place }) => (place === null ? [] : [place]));
    if (places.length > 0) write('trace.points-voided', { trace: trace.id, points: places });
    else for (const { entry } of strays) write('entry.voided', { voids: entry, reason: 'Off its neighbours.' });
  };
  return (
    <View className="gap-3" testID="trace-panel">
      {trace.name ? <Words look="label">{trace.name}</Words> : null}
      <CycleRibbon
        testID="trace-ribbon"
        card={{ ...nobody, [valve]: card.lobes[valve] }}
        measured={{ ...nobody, [valve]: trace.curve.length > 0 ? trace.curve : null }}
        dots={
          dots.length <= 120
            ? dots.map(({ angle, lift }) => ({ valve, angle, lift }))
            : strays.map(({ angle, lift }) => ({ valve, angle, lift }))
        }
        units={build.units}
        width={width}
        description={`Trace of the ${valve}, ${dots.length} points.`}
      />
      {problem ? (
        <Notice kind="warning" testID="trace-problem" message={problem.message} remedy={problem.remedy} />
      ) : null}
      {strays.length > 0 ? (
        <Notice
          kind="warning"
          testID="strays"
          message={`${strays.length === 1 ? 'One point lies' : `${strays.length} points lie`} off ${strays.length === 1 ? 'its' : 'their'} neighbours: ${strays
            .slice(0, 4)
            .map(({ angle, stray }) => `at ${computedDegrees(angle)} by ${length(Math.abs(stray ?? 0))}`)
            .join(', ')}.`}
          remedy="The curve goes without: is it a slip of the pen? Leave it out, and read it again at the same place if that leaves a gap; it stays in the logbook."
        >
          <View className="items-start">
            <QuietButton
              testID="leave-out"
              label={strays.length === 1 ? 'Leave it out' : 'Leave them out'}
              onPress={leaveOut}
            />
          </View>
        </Notice>
      ) : null}
      {figures ? (
        <View className="gap-1">
          <Figure label="Peak lift" shows={length(figures.peak)} />
          {trace.placed ? (
            <Figure
              label="Nose"
              shows={`${computedDegrees(Math.abs(figures.nose))} ${figures.nose < 0 ? 'BTDC' : 'ATDC'}`}
            />
          ) : null}
          <Figure
            label="Steepest, up and down"
            shows={`${decimal(figures.steepest.opening, 3)} and ${decimal(figures.steepest.closing, 3)} mm/°`}
          />
          <Figure label="Area under the curve" shows={`${decimal(figures.area, 0)} mm·°`} />
          {figures.whole ? null : (
            <Words look="soft">It does not reach the base circle on both sides: events low down are missing.</Words>
          )}
          {figures.every >= COARSE ? (
            <Words look="soft">{`Its points stand ${computedDegrees(figures.every, 0)} apart: they do not say where the nose itself is, only the centre between the flanks.`}</Words>
          ) : null}
          {Math.abs(figures.zeroOff) > 0.004 ? (
            <Words look="soft">{`The indicator showed ${length(Math.abs(figures.zeroOff))} on the base circle: taken off.`}</Words>
          ) : null}
        </View>
      ) : null}
      {trace.lean.length > 2 ? <LeanPlot lean={trace.lean} valve={valve} units={build.units} width={width} /> : null}
    </View>
  );
}

function Figure({ label, shows }: { readonly label: string; readonly shows: string }) {
  return (
    <View className="flex-row gap-3 border-b border-hairline py-1">
      <Words className="shrink grow">{label}</Words>
      <Words look="figure">{shows}</Words>
    </View>
  );
}
