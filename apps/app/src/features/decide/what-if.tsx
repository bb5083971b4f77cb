import { useStation } from '@/logbook/station';
import { TextLink } from '@/ui/text-link';
import { USUAL_HEIGHT } from '@yosoku/core/cam/usual-height';
import { useState } from 'react';
import { View } from 'react-native';
import { EVENT_NAMES, SIDE_WORDS, VALVES, type Valve } from '@yosoku/core/cam/card';
import { type Tried, effectsOf, whatIf } from '@yosoku/core/cam/what-if';
import { cylinderKnown } from '@yosoku/core/report/what-it-does';
import type { Report } from '@yosoku/core/report/report';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, formatComputedLength, formatLength } from '@yosoku/core/units/length';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { ShiftRule, shiftWords } from '@/pictures/shift-rule';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

type Shift = Readonly<Record<Valve, number>>;
const NOT_MOVED: Shift = { intake: 0, exhaust: 0 };

/** A cam that can be tried elsewhere. */
interface Rule {
  readonly name: string;
  readonly valve: Valve;
  readonly colour: string;
}

/** What would become of events, overlap and trapped compression if the cam were moved: card, measured and tried side by side. */
export function WhatIf() {
  const { report } = useStation();
  const { build, card, trials } = report;
  const theme = useTheme();
  const width = useStationWidth();
  const trial = trials.at(-1);
  const measured = trial?.lobes ?? { intake: null, exhaust: null };
  const base = { intake: measured.intake ?? card.lobes.intake, exhaust: measured.exhaust ?? card.lobes.exhaust };
  const twin = build.engine.cams === 'twin';
  const [by, setBy] = useState<Shift>(NOT_MOVED);
  const heights = heightsOf(report);
  const [chosen, setChosen] = useState<string | null>(null);
  const height = heights.find(({ value }) => value === chosen) ?? heights[0];
  const at = height?.mm ?? USUAL_HEIGHT[build.units];
  const cylinder = cylinderKnown(report.build);
  if (!base.intake && !base.exhaust) return <NothingToMove />;

  const ofCard = whatIf(card.lobes, NOT_MOVED, at, cylinder);
  const asMeasured = whatIf(measured, NOT_MOVED, at, cylinder);
  const tried = whatIf(base, by, at, cylinder);
  const stands = whatIf(base, NOT_MOVED, at, cylinder);
  const triedLobe = (valve: Valve) => tried.lobes.find((each) => each.valve === valve)?.lobe ?? null;
  const moves = trial?.cams.filter(({ verdict }) => verdict.kind === 'move') ?? [];
  const rules: readonly Rule[] = twin
    ? VALVES.map((valve) => ({ name: `${valve} cam`, valve, colour: theme[valve] }))
    : [{ name: 'cam', valve: 'intake', colour: theme.brass }];
  const put = (valve: Valve, value: number): void =>
    setBy(twin ? { ...by, [valve]: value } : { intake: value, exhaust: value });
  const effects = effectsOf(by.intake, (tried.separation ?? 0) - (stands.separation ?? 0));

  return (
    <StationBody footer={null}>
      <View className="gap-3 px-4 wide:px-0 pb-10 pt-4">
        <Words look="title" level={1}>
          What if
        </Words>
        {rules.map((rule) => (
          <TriedShift key={rule.valve} {...rule} by={by[rule.valve]} onChange={(value) => put(rule.valve, value)} />
        ))}
        <View className="flex-row flex-wrap gap-x-5">
          {moves.map(({ cam, verdict }) => {
            const move = Math.round(2 * (verdict.move ?? 0)) / 2;
            return (
              <View key={cam} className="max-w-full">
                <QuietButton
                  testID={`try-${cam}`}
                  label={`The verdict: ${cam === 'single' ? '' : `${cam} `}${shiftWords(move)}`}
                  onPress={() => put(cam === 'exhaust' ? 'exhaust' : 'intake', move)}
                />
              </View>
            );
          })}
          {by.intake !== 0 || by.exhaust !== 0 ? (
            <QuietButton testID="as-it-stands" label="As it stands" onPress={() => setBy(NOT_MOVED)} />
          ) : null}
        </View>
        <CycleRibbon
          testID="what-if-ribbon"
          card={card.lobes}
          measured={measured}
          tried={{ intake: triedLobe('intake'), exhaust: triedLobe('exhaust') }}
          units={build.units}
          width={Math.min(width - 32, 680)}
          description={`Cycle ribbon: card, measured, and as tried: ${shiftWords(by.intake)}.`}
        />
        {heights.length > 1 ? (
          <Choice
            label="Events at"
            testID="what-if-height"
            options={heights}
            value={height?.value}
            onChange={setChosen}
          />
        ) : null}
        <Table columns={{ card: ofCard, measured: asMeasured, tried }} height={at} />
        <Trapping tried={tried} />
        {effects.length > 0 ? (
          <View className="gap-1" testID="effects">
            <Words look="heading" level={2}>
              As common practice has it
            </Words>
            {effects.map((each) => (
              <Words key={each} look="soft">
                {each}
              </Words>
            ))}
            <Words look="soft">
              No promise, and no source. Before the engine turns with a moved cam, check valve-to-piston clearance as
              its maker says.
            </Words>
          </View>
        ) : null}
        <BackToVerdict />
      </View>
    </StationBody>
  );
}

/** The card's own checking heights, else the usual one. */
function heightsOf({ build, card }: Report): { value: string; label: string; mm: number }[] {
  const printed = VALVES.flatMap((valve) => card.printed?.[valve]?.timing ?? []).flatMap(({ height, at }) =>
    height !== null && at === 'lobe' ? [height] : [],
  );
  return [...new Set([...printed, USUAL_HEIGHT[build.units]])]
    .sort((a, b) => b - a)
    .map((mm) => ({ value: String(mm), label: formatLength(mm, build.units), mm }));
}

interface TableProps {
  readonly columns: Readonly<Record<'card' | 'measured' | 'tried', Tried>>;
  readonly height: number;
}

/** Card, measured and tried, a line for each figure that any of them has. */
function Table({ columns, height }: TableProps) {
  const { report } = useStation();
  const { units } = report.build;
  const all = [columns.card, columns.measured, columns.tried];
  const lobeLines = VALVES.flatMap((valve) => {
    const names = EVENT_NAMES[valve];
    const side = SIDE_WORDS[valve];
    const of = (tried: Tried) => tried.lobes.find((each) => each.valve === valve);
    return [
      { label: `${names.opens}, °${side.opens}`, cells: all.map((each) => figure(of(each)?.opens)) },
      { label: `${names.closes}, °${side.closes}`, cells: all.map((each) => figure(of(each)?.closes)) },
      { label: `${names.centreline}, °${side.centreline}`, cells: all.map((each) => figure(of(each)?.centreline)) },
      {
        label: `Lift at TDC, ${valve}`,
        cells: all.map((each) => {
          const lift = of(each)?.liftAtTdc;
          return lift === undefined ? '' : formatComputedLength(lift, units);
        }),
      },
    ];
  });
  const lines = [
    ...lobeLines,
    { label: 'LSA, cam', cells: all.map(({ separation }) => figure(separation)) },
    { label: `Overlap at ${formatLength(height, units)}, crank`, cells: all.map(({ overlap }) => figure(overlap)) },
    { label: 'Overlap, cam', cells: all.map(({ overlap }) => figure(overlap === null ? null : overlap / 2)) },
    {
      label: 'Trapped compression',
      cells: all.map(({ trapped }) => (trapped?.ratio == null ? '' : `${decimal(trapped.ratio, 1)} : 1`)),
    },
    {
      label: 'Trapped volume',
      cells: all.map(({ trapped }) => (trapped?.volume == null ? '' : `${decimal(trapped.volume, 0)} cm³`)),
    },
  ].filter(({ cells }) => cells.some((cell) => cell !== ''));
  return (
    <View role="table" aria-label="Card, measured and tried" testID="what-if-table" style={{ maxWidth: 680 }}>
      <Line label="Figure" cells={['Card', 'Measured', 'Tried']} heading />
      {lines.map((line) => (
        <Line key={line.label} {...line} />
      ))}
    </View>
  );
}

const figure = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : computedDegrees(value);

function Line({ label, cells, heading }: { label: string; cells: readonly string[]; heading?: boolean }) {
  return (
    <View role="row" className="flex-row flex-wrap items-baseline gap-x-2 border-b border-hairline py-1">
      <Words role={heading ? 'columnheader' : 'rowheader'} className="shrink grow basis-[90px]">
        {label}
      </Words>
      <View className="min-w-[165px] shrink grow basis-[240px] flex-row gap-x-2">
        {cells.map((cell, at) => (
          <Words
            key={at}
            role={heading ? 'columnheader' : 'cell'}
            look={heading ? 'soft' : 'figure'}
            tone={at === 2 ? 'brass' : at === 0 ? 'soft' : 'ink'}
            className="shrink grow basis-0 text-right"
          >
            {cell}
          </Words>
        ))}
      </View>
    </View>
  );
}

/** What the cylinder traps, counted from where the intake sits down. */
function trappedWords({ drop, ratio, staticRatio }: NonNullable<Tried['trapped']>, units: LengthUnit): string {
  const traps =
    ratio === null ? '' : `: ${decimal(ratio, 1)} : 1 from there, of ${decimal(staticRatio ?? 0, 1)} : 1 static`;
  return `As tried, the intake is on its seat (${formatLength(0.1524, units)}) when the piston stands ${formatComputedLength(drop, units)} below its top${traps}. Counted from the seat, not from a checking height, which would read too high.`;
}

/** What the trapped compression was reckoned from, or what is missing for it. */
const TRAPS_BY = [
  ['stroke', 'stroke'],
  ['rod', 'rod'],
  ['compression', 'compression ratio or chamber volume'],
  ['bore', 'bore'],
] as const;

function Trapping({ tried }: { readonly tried: Tried }) {
  const { report } = useStation();
  const { engine, units, id } = report.build;
  const missing = TRAPS_BY.filter(([figure]) => engine[figure] === null).map(([, words]) => words);
  return (
    <View className="gap-1">
      {tried.trapped ? (
        <Words look="soft" testID="trapped">
          {trappedWords(tried.trapped, units)}
        </Words>
      ) : null}
      {missing.length > 0 ? (
        <View className="items-start">
          <Words look="soft">{`For ${tried.trapped ? 'all of it' : 'what the cylinder traps'}: ${missing.join(', ')}.`}</Words>
          <TextLink href={`/builds/${id}/engine`} className="py-2">
            Give them at the engine
          </TextLink>
        </View>
      ) : null}
    </View>
  );
}

function BackToVerdict() {
  const { build } = useStation().report;
  return (
    <TextLink href={placeHref(build.id, 'decide')} replace className="py-2">
      Back to the verdict
    </TextLink>
  );
}

/** Neither card nor readings say what a lobe looks like. */
const NothingToMove = () => (
  <StationBody footer={null}>
    <View className="gap-3 px-4 wide:px-0 pt-4">
      <Words look="title" level={1}>
        What if
      </Words>
      <Words>There is no lobe to move yet.</Words>
      <Words look="soft">Give lift and duration at Card, or measure the cam at Read.</Words>
      <BackToVerdict />
    </View>
  </StationBody>
);

/** How far a cam is tried elsewhere, and the rule to put it by. */
function TriedShift({
  name,
  valve,
  colour,
  by,
  onChange,
}: Rule & { readonly by: number; readonly onChange: (by: number) => void }) {
  const width = Math.min(useStationWidth() - 32, 680);
  return (
    <View>
      <Words look="sentence" testID={`tried-${valve}`} aria-live="polite">
        {`The ${name}, ${shiftWords(by)}`}
      </Words>
      <View className="flex-row justify-between" style={{ width }}>
        <Words look="soft">retard</Words>
        <Words look="soft">advance</Words>
      </View>
      <ShiftRule
        testID={`shift-${valve}`}
        label={`Try the ${name}`}
        value={by}
        onChange={onChange}
        width={width}
        colour={colour}
      />
    </View>
  );
}
