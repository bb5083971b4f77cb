import { useRouter } from 'expo-router';
import { useState } from 'react';
import { TextInput, View } from 'react-native';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { type TraceCurve, readTrace } from '@yosoku/core/cam/trace';
import { type Table, type TableReading, readTable, surveyTable } from '@yosoku/core/measure/trace-table';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { cutText } from '@yosoku/core/units/text';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { tableOf } from './table-of';
import { BANKS } from './use-reading-choice';
import { useStation } from '@/logbook/station';
import { useStationWidth } from '@/shell/use-station-width';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

/** Larger files are no traces, bytes. */
const MOST_BYTES = 20_000_000;

const VALVE_OPTIONS = VALVES.map((value) => ({ value, label: value === 'intake' ? 'Intake' : 'Exhaust' }));
const SITS_ON = [
  { value: 'lobe', label: 'Lobe' },
  { value: 'lifter', label: 'Lifter' },
  { value: 'bucket', label: 'Bucket' },
  { value: 'valve', label: 'Valve' },
] as const;
const ANGLES = [
  { value: 'crank', label: 'Crank degrees' },
  { value: 'cam', label: 'Cam degrees' },
] as const;
const LIFTS = [
  { value: 'mm', label: 'mm' },
  { value: 'in', label: 'inches' },
  { value: 'thou', label: 'thou' },
] as const;
const FALLING = [
  { value: 'scale', label: 'A scale whose numbers fall' },
  { value: 'list', label: 'A list that runs backwards' },
] as const;
const COUNTED = [
  { value: 'from-zero', label: '0 is true TDC' },
  { value: 'anyhow', label: 'Nobody knows' },
] as const;

interface Given {
  readonly source: 'pasted' | 'file';
  readonly name: string | null;
  readonly table: Table;
}

type Counted = 'from-zero' | 'anyhow';

/** A trace that is being taken in: what was given, how it is understood, and what becomes of it. */
function useTraceImport() {
  const { report, write } = useStation();
  const { build, read, zero } = report;
  const router = useRouter();
  const [given, setGiven] = useState<Given | null>(null);
  const [typed, setTyped] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [own, setOwn] = useState<Partial<TableReading>>({});
  const [valve, setValve] = useState<Valve>(read.proposal.valve);
  const [bank, setBank] = useState<'1' | '2'>('1');
  const [sitsOn, setSitsOn] = useState(read.sitsOn);
  const [counted, setCounted] = useState<Counted>('from-zero');

  const survey = given ? surveyTable(given.table) : null;
  const reading: TableReading | null = survey ? { ...survey.reading, ...own } : null;
  const points = given && reading ? readTable(given.table, reading) : null;
  const trace = points?.ok ? readTrace(points.points, { liftSd: 0.004, angleSd: 0, closes: 0.03 }) : null;

  const take = async (text: string, source: Given['source'], name: string | null): Promise<void> => {
    const { parse } = (await import('papaparse')).default;
    setOwn({});
    setTrouble(null);
    setGiven({ source, name, table: tableOf(text, (spaced, how) => parse<string[]>(spaced, how)) });
  };
  const open = async (file: File): Promise<void> => {
    setTrouble(null);
    if (file.size > MOST_BYTES) {
      setTrouble(`“${file.name}” has ${Math.round(file.size / 1e6)} MB: too large for a trace.`);
      return;
    }
    try {
      await take(await file.text(), 'file', file.name);
    } catch {
      setTrouble('The file could not be opened. Pick it again, or paste its contents below.');
    }
  };
  const paste = (text: string): void => {
    setTyped(text);
    if (text.trim() === '') setGiven(null);
    else void take(text, 'pasted', null);
  };
  const keep = (): void => {
    if (!given || !points?.ok) return;
    write('trace.recorded', {
      setting: zero.setting,
      trial: read.trial ?? write('trial.begun', { after: null }),
      cylinder: bank === '2' ? (build.engine.secondBank ?? 1) : 1,
      valve,
      sitsOn,
      approach: 'forward',
      source: given.source,
      ...(given.name ? { name: cutText(given.name, 200) } : {}),
      counted,
      points: points.points.map(({ angle, lift }): [number, number] => [angle, Math.round(lift * 1e6) / 1e6]),
    });
    router.replace(placeHref(build.id, 'read'));
  };
  return {
    given,
    typed,
    trouble,
    survey,
    reading,
    points,
    trace,
    open,
    paste,
    keep,
    change: (part: Partial<TableReading>) => setOwn({ ...own, ...part }),
    lobe: { valve, setValve, bank, setBank, sitsOn, setSitsOn, counted, setCounted },
  };
}

type Import = ReturnType<typeof useTraceImport>;

/** A trace from a file or the clipboard: looked at first, then kept whole, or not at all. */
export function TraceImport() {
  const { build } = useStation().report;
  const taken = useTraceImport();
  const { points, trouble } = taken;
  return (
    <StationBody
      footer={
        points?.ok ? (
          <PrimaryButton
            testID="trace-keep"
            label={`Save the trace, ${points.points.length} points`}
            onPress={taken.keep}
          />
        ) : null
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-6 pt-4">
        <Words look="title" level={1}>
          A trace from a file, or pasted
        </Words>
        <Words look="body">
          Two columns at least: angle and lift. Crank or cam degrees, millimetres, inches or thou; it may start
          anywhere.
        </Words>
        <PickOrPaste taken={taken} />
        {trouble ? <Notice kind="danger" testID="trace-trouble" message={trouble} /> : null}
        {points && !points.ok ? (
          <Notice
            kind="danger"
            testID="trace-trouble"
            message={points.problem.message}
            remedy={points.problem.remedy}
          />
        ) : null}
        <HowItIsRead taken={taken} banked={build.engine.secondBank !== null} />
        <Preview taken={taken} />
      </View>
    </StationBody>
  );
}

function PickOrPaste({ taken: { given, typed, open, paste } }: { readonly taken: Import }) {
  const theme = useTheme();
  return (
    <>
      <View className="flex-row flex-wrap items-center gap-x-4">
        <FileField
          testID="trace-file"
          label="Pick a file"
          accept=".csv,.txt,.tsv,text/*"
          onFile={(file) => void open(file)}
        />
        {given?.name ? <Words look="soft">{given.name}</Words> : null}
      </View>
      <View className="gap-1">
        <Words look="label" aria-hidden>
          Or paste it here
        </Words>
        <TextInput
          testID="trace-paste"
          aria-label="Paste the trace here"
          multiline
          value={typed}
          onChangeText={paste}
          placeholder={'-20, 0.000\n-16, 0.002\n-12, 0.011'}
          placeholderTextColor={theme.soft}
          className="h-[110px] border-b-2 border-line bg-raised px-3 py-2 font-figures text-[16px] text-ink"
        />
      </View>
    </>
  );
}

const COLUMN_LABELS = { angleColumn: 'The angle is column', liftColumn: 'The lift is column' } as const;
const COUNTED_HINTS = {
  'from-zero': 'Its 0 is the zero of the wheel, proved or not, at either TDC.',
  anyhow: 'Then it tells lift, duration, lean and shape, but not where the cam sits.',
} as const;

/** What its columns are, and of which lobe it is. */
function HowItIsRead({ taken, banked }: { readonly taken: Import; readonly banked: boolean }) {
  const { survey, reading, points, change, lobe } = taken;
  if (!survey || !reading) return null;
  const asked = survey.columns > 2 || !points?.ok;
  return (
    <View className="gap-4">
      {(asked ? (['angleColumn', 'liftColumn'] as const) : []).map((which) => (
        <Choice
          key={which}
          testID={`trace-${which}`}
          label={COLUMN_LABELS[which]}
          options={columnsOf(survey)}
          value={String(reading[which])}
          onChange={(value) => change({ [which]: Number(value) })}
        />
      ))}
      <Choice
        testID="trace-angle-in"
        label="Angles are"
        options={ANGLES}
        value={reading.angleIn}
        onChange={(angleIn) => change({ angleIn })}
      />
      {survey.falls ? (
        <Choice
          testID="trace-falling"
          label="The angles fall from row to row. It is"
          options={FALLING}
          value={reading.falling ?? undefined}
          onChange={(falling) => change({ falling })}
          hint="Turned the way the engine runs. One lobe is the mirror image of the other: the opening side comes first."
        />
      ) : null}
      <Choice
        testID="trace-lift-in"
        label="Lifts are in"
        options={LIFTS}
        value={reading.liftIn}
        onChange={(liftIn) => change({ liftIn })}
      />
      <Choice
        testID="trace-valve"
        label="It is the"
        options={VALVE_OPTIONS}
        value={lobe.valve}
        onChange={lobe.setValve}
      />
      {banked ? (
        <Choice testID="trace-bank" label="Of" options={BANKS} value={lobe.bank} onChange={lobe.setBank} />
      ) : null}
      <Choice
        testID="trace-sits-on"
        label="Taken on the"
        options={SITS_ON}
        value={lobe.sitsOn}
        onChange={lobe.setSitsOn}
      />
      <Choice
        testID="trace-counted"
        label="Where is TDC on its scale?"
        options={COUNTED}
        value={lobe.counted}
        onChange={lobe.setCounted}
        hint={COUNTED_HINTS[lobe.counted]}
      />
    </View>
  );
}

/** What was understood of it, before anything is kept. */
function Preview({ taken: { points, trace, lobe } }: { readonly taken: Import }) {
  const { report } = useStation();
  const { build, card } = report;
  const width = Math.min(useStationWidth() - 32, 680);
  if (!points?.ok || !trace) return null;
  const lobes = { intake: null, exhaust: null } as const;
  return (
    <View className="gap-2" testID="trace-preview">
      {points.notes.map((note) => (
        <Words key={note} look="soft">
          {note}
        </Words>
      ))}
      {trace.ok ? (
        <>
          <Words look="sentence">{`Peak lift ${formatComputedLength(trace.curve.peak, build.units)}, ${points.points.length} points.`}</Words>
          {remarksOn(trace.curve, build.units).map((remark) => (
            <Words key={remark} look="soft">
              {remark}
            </Words>
          ))}
          <CycleRibbon
            card={{ ...lobes, [lobe.valve]: lobe.counted === 'from-zero' ? card.lobes[lobe.valve] : null }}
            measured={{ ...lobes, [lobe.valve]: samples(trace.curve) }}
            units={build.units}
            width={width}
            description="The trace as it was understood."
          />
        </>
      ) : (
        <Notice
          kind="warning"
          testID="trace-problem"
          message={trace.problem.message}
          remedy={`${trace.problem.remedy} It can be kept, but nothing is worked out from it.`}
        />
      )}
    </View>
  );
}

/** A zero off the base circle by less than this is the indicator's own, mm. */
const ZERO_STANDS = 0.004;

/** What was taken off, and what was left out of the curve. */
function remarksOn({ zeroOff, strays }: TraceCurve, units: LengthUnit): string[] {
  const off = `It stood at ${formatComputedLength(Math.abs(zeroOff), units)} ${zeroOff < 0 ? 'below' : 'above'} 0 on the base circle: taken off.`;
  const lie = strays.length === 1 ? 'One point lies' : `${strays.length} points lie`;
  return [
    ...(Math.abs(zeroOff) > ZERO_STANDS ? [off] : []),
    ...(strays.length > 0
      ? [`${lie} off the neighbours: the curve goes without, and asks about it when it is kept.`]
      : []),
  ];
}

/** The curve to draw, with its nose in the cycle. */
function samples(curve: {
  readonly from: number;
  readonly to: number;
  readonly nose: number;
  readonly lift: (at: number) => number;
}) {
  const shift = -Math.round(curve.nose / 360) * 360;
  return Array.from({ length: Math.floor((curve.to - curve.from) / 4) + 1 }, (_, i): [number, number] => {
    const at = curve.from + i * 4;
    return [at + shift, Math.max(0, curve.lift(at))];
  });
}

const columnsOf = ({ columns, headings }: { readonly columns: number; readonly headings: readonly string[] | null }) =>
  Array.from({ length: Math.min(columns, 8) }, (_, at) => ({
    value: String(at),
    label: headings?.[at] ? cutText(headings[at], 18) : `${at + 1}`,
  }));
