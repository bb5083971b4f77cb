import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useAppSelector } from '@/store/store';
import { PrimaryButton } from '@/ui/buttons';
import { Page } from '@/ui/page';
import { Unwritten } from '@/logbook/unwritten';
import { useDraftForm } from '@/ui/use-draft-form';
import { EngineFields } from './engine-fields';
import { EMPTY_ENGINE, type EngineForm, engineForm, readEngine } from './engine-form';
import { type Like, LikeAnother } from './like-another';
import { placeHref } from '@/shell/station-line';
import { type Write, newId, useWriteTo } from '@/logbook/use-logbook';

/** A short form: what engine it is, or which earlier one it is like. Works without a network. */
export function NewBuild() {
  const router = useRouter();
  const shopId = useAppSelector((state) => state.session.account?.shopId ?? '');
  const [buildId] = useState(newId);
  const [like, setLike] = useState<Like | null>(null);
  const write = useWriteTo(buildId);
  const form = useDraftForm<EngineForm>(`${shopId}/new-build`, EMPTY_ENGINE);
  const takeOver = (next: Like | null): void => {
    setLike(next);
    const { name } = form.getValues();
    // A name that was typed already is the new build's own.
    const filled = next ? engineForm(next.report) : EMPTY_ENGINE;
    form.reset({ ...filled, name });
  };
  const begin = form.handleSubmit((typed) => {
    const kin = like?.taken.kin ?? [];
    write('build.described', {
      replaces: null,
      ...readEngine(typed, like?.report.build.rings),
      ...(kin.length > 0 ? { like: [...kin] } : {}),
    });
    const trial = write('trial.begun', { after: null });
    if (like) writeFacts(write, like, trial);
    form.done();
    router.replace(placeHref(buildId, 'zero'));
  });
  return (
    <Page title="New build" back={{ href: '/', label: 'Builds' }}>
      <LikeAnother like={like} onLike={takeOver} />
      <EngineFields form={form} />
      <Unwritten />
      <PrimaryButton testID="begin" label="Begin at Zero" onPress={() => void begin()} />
    </Page>
  );
}

/** Card, target and timing set of the earlier build, as facts of this one. */
function writeFacts(write: Write, { taken: { card, target, drive } }: Like, trial: string): void {
  if (card) write('card.entered', { replaces: null, ...card });
  if (target) write('target.set', { replaces: null, ...target });
  if (drive)
    write('drive.fitted', {
      replaces: null,
      trial,
      camTurns: drive.camTurns,
      // Another engine's parts are not these, though they may be of the same kind.
      parts: drive.parts.map((part) => ({ ...part, part: newId() })),
    });
}
