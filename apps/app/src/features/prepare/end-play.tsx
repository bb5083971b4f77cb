import { View } from 'react-native';
import { END_PLAY, judgeEndPlay } from '@yosoku/core/prepare/end-play';
import { formatLength, parseLength } from '@yosoku/core/units/length';
import { drafted, draftDone } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

const THRUSTS = [
  { value: 'plate', label: 'Thrust plate' },
  { value: 'button', label: 'Button' },
] as const;

/** The cam's end play as measured, against what is usual for what holds it. */
export function EndPlay() {
  const { report, write } = useStation();
  const dispatch = useAppDispatch();
  const { build, prepare } = report;
  const place = `${build.id}/end-play`;
  const draft = useAppSelector((state) => state.drafts[place]);
  const thrust = draft?.thrust === 'button' ? 'button' : 'plate';
  const text = draft?.text ?? '';
  const parsed = parseLength(text, { family: 'lift', unit: build.units });
  const change = (part: Record<string, string>): void => {
    dispatch(drafted({ place, draft: { thrust, text, ...part } }));
  };
  const tooMuch = parsed.ok && parsed.mm > 10;
  const trouble =
    text === ''
      ? undefined
      : !parsed.ok
        ? parsed.message
        : tooMuch
          ? `${parsed.understood} is no end play. Check the unit.`
          : undefined;
  const keep = (): void => {
    if (!parsed.ok || tooMuch) return;
    write('end-play.measured', { replaces: prepare.endPlay?.entry ?? null, thrust, play: parsed.mm });
    dispatch(draftDone(place));
  };
  const { from, to } = END_PLAY[thrust];
  const usual = `Usual: ${formatLength(from, build.units)} to ${formatLength(to, build.units)}.`;
  return (
    <View className="gap-2 pt-1">
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
      <TextField
        testID="end-play"
        label="End play"
        value={text}
        onChange={(typed) => change({ text: typed })}
        inputMode="decimal"
        error={trouble}
        echo={
          parsed.ok && !tooMuch
            ? `${parsed.understood}. ${judgeEndPlay(thrust, parsed.mm, build.units).words}`
            : undefined
        }
        hint={usual}
        onSubmitEditing={keep}
      />
      <View className="items-start">
        <QuietButton testID="end-play-keep" label="Save end play" disabled={!parsed.ok || tooMuch} onPress={keep} />
      </View>
    </View>
  );
}
