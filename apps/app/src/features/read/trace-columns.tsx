import { View } from 'react-native';
import { VALVES } from '@yosoku/core/cam/card';
import { cutText } from '@yosoku/core/units/text';
import { Choice } from '@/ui/choice';
import { BANKS } from './use-reading-choice';
import type { Import } from './use-trace-import';

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

const COLUMN_LABELS = { angleColumn: 'The angle is column', liftColumn: 'The lift is column' } as const;
const COUNTED_HINTS = {
  'from-zero': 'Its 0 is the zero of the wheel, proved or not, at either TDC.',
  anyhow: 'Then it tells lift, duration, lean and shape, but not where the cam sits.',
} as const;

/** What its columns are, and of which lobe it is. */
export function HowItIsRead({ taken, banked }: { readonly taken: Import; readonly banked: boolean }) {
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

const columnsOf = ({ columns, headings }: { readonly columns: number; readonly headings: readonly string[] | null }) =>
  Array.from({ length: Math.min(columns, 8) }, (_, at) => ({
    value: String(at),
    label: headings?.[at] ? cutText(headings[at], 18) : `${at + 1}`,
  }));
