import { View } from 'react-native';
import { END_PLAY, type PlayMeasured, judgeEndPlay } from '@yosoku/core/prepare/end-play';
import { formatLength, typedLength } from '@yosoku/core/units/length';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';
import { MOST_END_PLAY } from '@yosoku/core/record/entries/limits';

const THRUSTS = [
  { value: 'plate', label: 'Thrust plate' },
  { value: 'button', label: 'Button' },
] as const;

const YES_NO = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;
type Asked = 'returns' | 'gasket';

/** What is being typed of the end play, kept on the device key by key. */
function useEndPlay() {
  const { report } = useStation();
  const { build, prepare } = report;
  const { draft, change, done } = useDraft(`${build.id}/end-play`);
  const { units } = build;
  const kept = prepare.endPlay?.wanted ?? null;
  const wantedText = draft.wanted ?? (kept === null ? '' : typedLength(kept, units));
  const answer = (name: Asked): boolean | undefined => (draft[name] === undefined ? undefined : draft[name] === 'yes');
  return {
    units,
    thrust: THRUSTS.find(({ value }) => value === draft.thrust)?.value ?? prepare.endPlay?.thrust ?? 'plate',
    text: draft.text ?? '',
    wantedText,
    play: typedLengthOf(draft.text ?? '', { units, family: 'lift', most: MOST_END_PLAY }),
    wanted: typedLengthOf(wantedText, { units, family: 'lift', most: MOST_END_PLAY }),
    returns: answer('returns'),
    gasket: answer('gasket'),
    change,
    done,
  };
}

/** What was typed, as it is written into the logbook; null while it is none. */
function measuredOf({ thrust, play, wanted, returns, gasket }: ReturnType<typeof useEndPlay>): PlayMeasured | null {
  if (play.state !== 'good' || wanted.state === 'wrong') return null;
  return {
    thrust,
    play: play.mm,
    ...(wanted.state === 'good' ? { wanted: wanted.mm } : {}),
    ...(returns === undefined ? {} : { returns }),
    ...(gasket === undefined || thrust === 'plate' ? {} : { gasket }),
  };
}

/** The cam's end play as measured, against what is wanted or usual for what holds it, and what to take off or to add. */
export function EndPlay() {
  const { report, write } = useStation();
  const { prepare } = report;
  const form = useEndPlay();
  const { units, thrust, change } = form;
  const measured = measuredOf(form);
  const keep = (): void => {
    if (!measured) return;
    write('end-play.measured', { replaces: prepare.endPlay?.entry ?? null, ...measured });
    form.done();
  };
  return (
    <View className="gap-3 pt-1">
      {prepare.endPlay ? (
        <Words look="label" tone={prepare.endPlay.state === 'inside' ? 'intake' : 'danger'} testID="end-play-verdict">
          {prepare.endPlay.words}
        </Words>
      ) : null}
      <Choice
        label="The cam is held endways by"
        options={THRUSTS}
        value={thrust}
        onChange={(value) => change({ thrust: value })}
      />
      <PlayFields form={form} onSubmit={keep} />
      <View className="gap-3 wide:flex-row">
        <Question form={form} name="returns" label="Let go, does the needle come back to 0?" />
        {thrust === 'button' ? <Question form={form} name="gasket" label="Cover on, gasket in, every bolt?" /> : null}
      </View>
      {measured ? <Words testID="end-play-so-far">{judgeEndPlay(measured, units).words}</Words> : null}
      <View className="items-start">
        <QuietButton testID="end-play-keep" label="Save end play" disabled={!measured} onPress={keep} />
      </View>
    </View>
  );
}

interface PartProps {
  readonly form: ReturnType<typeof useEndPlay>;
}

function PlayFields({ form, onSubmit }: PartProps & { readonly onSubmit: () => void }) {
  const { units, thrust, play, wanted, change } = form;
  const { from, to } = END_PLAY[thrust];
  return (
    <View className="flex-row flex-wrap gap-x-4 gap-y-3">
      <View className="grow basis-[150px]">
        <LengthField
          testID="end-play"
          label="End play"
          text={form.text}
          typed={play}
          hint={`Usual: ${formatLength(from, units)} to ${formatLength(to, units)}.`}
          onChange={(text) => change({ text })}
          onSubmit={onSubmit}
        />
      </View>
      <View className="grow basis-[150px]">
        <LengthField
          testID="end-play-wanted"
          label="Wanted by its maker"
          text={form.wantedText}
          typed={wanted}
          hint="Nothing: what is usual."
          onChange={(text) => change({ wanted: text })}
          onSubmit={onSubmit}
        />
      </View>
    </View>
  );
}

function Question({ form, name, label }: PartProps & { readonly name: Asked; readonly label: string }) {
  const said = form[name];
  return (
    <View className="wide:grow wide:basis-0">
      <Choice
        testID={`end-play-${name}`}
        label={label}
        options={YES_NO}
        value={said === undefined ? undefined : said ? 'yes' : 'no'}
        onChange={(value) => form.change({ [name]: value })}
      />
    </View>
  );
}
