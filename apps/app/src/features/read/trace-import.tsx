import { useRouter } from 'expo-router';
import { useState } from 'react';
import { TextInput, View } from 'react-native';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { readTrace } from '@yosoku/core/cam/trace';
import { type Table, type TableReading, readTable, surveyTable } from '@yosoku/core/measure/trace-table';
import { formatComputedLength } from '@yosoku/core/units/length';
import { cutText } from '@yosoku/core/units/text';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { tableOf } from './table-of';
import { BANKS } from './use-reading-choice';
import type { StationProps } from '@/shell/station-screen';
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

/** A trace from a file or the clipboard: looked at first, then kept whole, or not at all. */
export function TraceImport({ report, write }: StationProps) {
  const { build, read, zero, card } = report;
  const router = useRouter();
  const theme = useTheme();
  const width = Math.min(useStationWidth() - 32, 680);
  const [given, setGiven] = useState<Given | null>(null);
  const [typed, setTyped] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [own, setOwn] = useState<Partial<TableReading>>({});
  const [valve, setValve] = useState<Valve>(read.proposal.valve);
  const [bank, setBank] = useState<'1' | '2'>('1');
  const [sitsOn, setSitsOn] = useState(read.sitsOn);
  const [counted, setCounted] = useState<'from-zero' | 'anyhow'>('from-zero');

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
  const choose = <T extends string>(
    label: string,
    options: readonly { readonly value: T; readonly label: string }[],
    value: T,
    onChange: (value: T) => void,
    testID: string,
  ) => <Choice testID={testID} label={label} options={options} value={value} onChange={onChange} />;

  return (
    <StationBody
      footer={
        points?.ok ? (
          <PrimaryButton testID="trace-keep" label={`Save the trace, ${points.points.length} points`} onPress={keep} />
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
            onChangeText={(text) => {
              setTyped(text);
              if (text.trim() === '') setGiven(null);
              else void take(text, 'pasted', null);
            }}
            placeholder={'-20, 0.000\n-15, 0.002\n-10, 0.011'}
            placeholderTextColor={theme.soft}
            className="h-[110px] border-b-2 border-line bg-raised px-3 py-2 font-figures text-[16px] text-ink"
          />
        </View>
        {trouble ? <Notice kind="danger" testID="trace-trouble" message={trouble} /> : null}
        {points && !points.ok ? (
          <Notice
            kind="danger"
            testID="trace-trouble"
            message={points.problem.message}
            remedy={points.problem.remedy}
          />
        ) : null}
        {given && survey && reading ? (
          <View className="gap-4">
            {survey.columns > 2 || !points?.ok
              ? (['angleColumn', 'liftColumn'] as const).map((which) => (
                  <View key={which}>
                    {choose(
                      which === 'angleColumn' ? 'The angle is column' : 'The lift is column',
                      columnsOf(survey),
                      String(reading[which]),
                      (value) => setOwn({ ...own, [which]: Number(value) }),
                      `trace-${which}`,
                    )}
                  </View>
                ))
              : null}
            {choose('Angles are', ANGLES, reading.angleIn, (angleIn) => setOwn({ ...own, angleIn }), 'trace-angle-in')}
            {survey.falls ? (
              <Choice
                testID="trace-falling"
                label="The angles fall from row to row. It is"
                options={FALLING}
                value={reading.falling ?? undefined}
                onChange={(falling) => setOwn({ ...own, falling })}
                hint="Turned the way the engine runs. One lobe is the mirror image of the other: the opening side comes first."
              />
            ) : null}
            {choose('Lifts are in', LIFTS, reading.liftIn, (liftIn) => setOwn({ ...own, liftIn }), 'trace-lift-in')}
            {choose('It is the', VALVE_OPTIONS, valve, setValve, 'trace-valve')}
            {build.engine.secondBank === null ? null : choose('Of', BANKS, bank, setBank, 'trace-bank')}
            {choose('Taken on the', SITS_ON, sitsOn, setSitsOn, 'trace-sits-on')}
            <Choice
              testID="trace-counted"
              label="Where is TDC on its scale?"
              options={COUNTED}
              value={counted}
              onChange={setCounted}
              hint={
                counted === 'from-zero'
                  ? 'Its 0 is the zero of the wheel, proved or not, at either TDC.'
                  : 'Then it tells lift, duration, lean and shape, but not where the cam sits.'
              }
            />
          </View>
        ) : null}
        {points?.ok && trace ? (
          <View className="gap-2" testID="trace-preview">
            {points.notes.map((note) => (
              <Words key={note} look="soft">
                {note}
              </Words>
            ))}
            {trace.ok ? (
              <>
                <Words look="sentence">{`Peak lift ${formatComputedLength(trace.curve.peak, build.units)}, ${points.points.length} points.`}</Words>
                {Math.abs(trace.curve.zeroOff) > 0.004 ? (
                  <Words look="soft">{`It stood at ${formatComputedLength(Math.abs(trace.curve.zeroOff), build.units)} ${trace.curve.zeroOff < 0 ? 'below' : 'above'} 0 on the base circle: taken off.`}</Words>
                ) : null}
                {trace.curve.strays.length > 0 ? (
                  <Words look="soft">{`${trace.curve.strays.length === 1 ? 'One point lies' : `${trace.curve.strays.length} points lie`} off the neighbours: the curve goes without, and asks about it when it is kept.`}</Words>
                ) : null}
                <CycleRibbon
                  card={{ intake: null, exhaust: null, [valve]: counted === 'from-zero' ? card.lobes[valve] : null }}
                  measured={{
                    intake: null,
                    exhaust: null,
                    [valve]: samples(trace.curve),
                  }}
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
        ) : null}
      </View>
    </StationBody>
  );
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
