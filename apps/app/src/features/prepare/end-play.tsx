import { View } from 'react-native';
import { END_PLAY, judgeEndPlay } from '@yosoku/core/prepare/end-play';
import { formatLength, typedLength } from '@yosoku/core/units/length';
import { LengthField, typedLengthOf } from '@/forms/length-field';
import { drafted, draftDone } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

const THRUSTS = [
  { value: 'plate', label: 'Thrust plate' },
  { value: 'button', label: 'Button' },
] as const;

const YES_NO = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;
const MOST = 10;

/** What is being typed of the end play, kept on the device key by key. */
function useEndPlay() {
  const { report } = useStation();
  const { build, prepare } = report;
  const dispatch = useAppDispatch();
  const place = `${build.id}/end-play`;
  const draft = useAppSelector((state) => state.drafts[place]) ?? {};
  const { units } = build;
  const kept = prepare.endPlay?.wanted ?? null;
  const wantedText = draft.wanted ?? (kept === null ? '' : typedLength(kept, units));
  const answer = (name: 'returns' | 'gasket'): boolean | undefined =>
    draft[name] === undefined ? undefined : draft[name] === 'yes';
  return {
    units,
    thrust: draft.thrust === 'button' ? ('button' as const) : ('plate' as const),
    text: draft.text ?? '',
    wantedText,
    play: typedLengthOf(draft.text ?? '', { units, family: 'lift', most: MOST }),
    wanted: typedLengthOf(wantedText, { units, family: 'lift', most: MOST }),
    returns: answer('returns'),
    gasket: answer('gasket'),
    change: (part: Record<string, string>): void => void dispatch(drafted({ place, draft: { ...draft, ...part } })),
    done: (): void => void dispatch(draftDone(place)),
  };
}

/** The cam's end play as measured, against what is wanted or usual for what holds it, and what to take off or to add. */
export function EndPlay() {
  const { report, write } = useStation();
  const { prepare } = report;
  const form = useEndPlay();
  const { units, thrust, play, wanted, returns, gasket, change } = form;
  const measured =
    play.state === 'good' && wanted.state !== 'wrong'
      ? {
          thrust,
          play: play.mm,
          ...(wanted.state === 'good' ? { wanted: wanted.mm } : {}),
          ...(returns === undefined ? {} : { returns }),
          ...(gasket === undefined || thrust === 'plate' ? {} : { gasket }),
        }
      : null;
  const keep = (): void => {
    if (!measured) return;
    write('end-play.measured', { replaces: prepare.endPlay?.entry ?? null, ...measured });
    form.done();
  };
  const { from, to } = END_PLAY[thrust];
  const question = (name: 'returns' | 'gasket', label: string, said: boolean | undefined) => (
    <View className="wide:grow wide:basis-0">
      <Choice
        testID={`end-play-${name}`}
        label={label}
        options={YES_NO}
        value={said === undefined ? undefined : said ? 'yes' : 'no'}
        onChange={(value) => change({ [name]: value })}
      />
    </View>
  );
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
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        <View className="grow basis-[150px]">
          <LengthField
            testID="end-play"
            label="End play"
            text={form.text}
            typed={play}
            hint={`Usual: ${formatLength(from, units)} to ${formatLength(to, units)}.`}
            onChange={(text) => change({ text })}
            onSubmit={keep}
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
            onSubmit={keep}
          />
        </View>
      </View>
      <View className="gap-3 wide:flex-row">
        {question('returns', 'Let go, does the needle come back to 0?', returns)}
        {thrust === 'button' ? question('gasket', 'Cover on, gasket in, every bolt?', gasket) : null}
      </View>
      {measured ? <Words testID="end-play-so-far">{judgeEndPlay(measured, units).words}</Words> : null}
      <View className="items-start">
        <QuietButton testID="end-play-keep" label="Save end play" disabled={!measured} onPress={keep} />
      </View>
    </View>
  );
}
