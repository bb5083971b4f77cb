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

/** More points than these are a smear: only the strays are dotted. */
const MOST_DOTS = 120;
/** Less than this on the base circle is not worth a word, mm. */
const ZERO_OFF = 0.004;

/** A trace: its curve, what it tells, and the points that lie off their neighbours. */
export function TracePanel({ trace }: TracePanelProps) {
  const { units } = useStation().report.build;
  const { valve, figures, problem, dots } = trace;
  const width = Math.min(useStationWidth() - 32, 680);
  const strays = dots.filter((dot) => dot.stray !== null);
  return (
    <View className="gap-3" testID="trace-panel">
      {trace.name ? <Words look="label">{trace.name}</Words> : null}
      <Curve trace={trace} strays={strays} width={width} />
      {problem ? (
        <Notice kind="warning" testID="trace-problem" message={problem.message} remedy={problem.remedy} />
      ) : null}
      {strays.length > 0 ? <Strays trace={trace} strays={strays} /> : null}
      {figures ? <Figures figures={figures} placed={trace.placed} /> : null}
      {trace.lean.length > 2 ? <LeanPlot lean={trace.lean} valve={valve} units={units} width={width} /> : null}
    </View>
  );
}

const NEITHER = { intake: null, exhaust: null };

/** The curve over the card's, and the points of few readings, or those that lie off. */
function Curve({ trace, strays, width }: TracePanelProps & { readonly strays: Trace['dots']; readonly width: number }) {
  const { build, card } = useStation().report;
  const { valve, dots, curve } = trace;
  const dotted = dots.length <= MOST_DOTS ? dots : strays;
  return (
    <CycleRibbon
      testID="trace-ribbon"
      card={{ ...NEITHER, [valve]: card.lobes[valve] }}
      measured={{ ...NEITHER, [valve]: curve.length > 0 ? curve : null }}
      dots={dotted.map(({ angle, lift }) => ({ valve, angle, lift }))}
      units={build.units}
      width={width}
      description={`Trace of the ${valve}, ${dots.length} points.`}
    />
  );
}

/** Points off their neighbours, and the key that leaves them out. */
function Strays({ trace, strays }: TracePanelProps & { readonly strays: Trace['dots'] }) {
  const { report, write } = useStation();
  const leaveOut = (): void => {
    const places = strays.flatMap(({ place }) => (place === null ? [] : [place]));
    if (places.length > 0) write('trace.points-voided', { trace: trace.id, points: places });
    else for (const { entry } of strays) write('entry.voided', { voids: entry, reason: 'Off its neighbours.' });
  };
  const where = strays
    .slice(0, 4)
    .map(({ angle, stray }) => {
      const by = formatComputedLength(Math.abs(stray ?? 0), report.build.units);
      return `at ${computedDegrees(angle)} by ${by}`;
    })
    .join(', ');
  const [which, key] =
    strays.length === 1
      ? ['One point lies off its neighbours', 'Leave it out']
      : [`${strays.length} points lie off their neighbours`, 'Leave them out'];
  return (
    <Notice
      kind="warning"
      testID="strays"
      message={`${which}: ${where}.`}
      remedy="The curve goes without: is it a slip of the pen? Leave it out, and read it again at the same place if that leaves a gap; it stays in the logbook."
    >
      <View className="items-start">
        <QuietButton testID="leave-out" label={key} onPress={leaveOut} />
      </View>
    </Notice>
  );
}

interface FiguresProps {
  readonly figures: NonNullable<Trace['figures']>;
  /** Does it stand on a zero, so that its nose has a place? */
  readonly placed: boolean;
}

/** What a trace tells in figures, and what it cannot tell. */
function Figures({ figures, placed }: FiguresProps) {
  const { units } = useStation().report.build;
  const { peak, nose, steepest, area, whole, every, zeroOff } = figures;
  const nosePlace = `${computedDegrees(Math.abs(nose))} ${nose < 0 ? 'BTDC' : 'ATDC'}`;
  return (
    <View className="gap-1">
      <Figure label="Peak lift" shows={formatComputedLength(peak, units)} />
      {placed ? <Figure label="Nose" shows={nosePlace} /> : null}
      <Figure
        label="Steepest, up and down"
        shows={`${decimal(steepest.opening, 3)} and ${decimal(steepest.closing, 3)} mm/°`}
      />
      <Figure label="Area under the curve" shows={`${decimal(area, 0)} mm·°`} />
      {whole ? null : (
        <Words look="soft">It does not reach the base circle on both sides: events low down are missing.</Words>
      )}
      {every >= COARSE ? (
        <Words look="soft">{`Its points stand ${computedDegrees(every, 0)} apart: they do not say where the nose itself is, only the centre between the flanks.`}</Words>
      ) : null}
      {Math.abs(zeroOff) > ZERO_OFF ? (
        <Words look="soft">{`The indicator showed ${formatComputedLength(Math.abs(zeroOff), units)} on the base circle: taken off.`}</Words>
      ) : null}
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
