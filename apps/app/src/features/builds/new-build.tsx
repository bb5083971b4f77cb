import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useAppSelector } from '@/store/store';
import { PrimaryButton } from '@/ui/buttons';
import { Page } from '@/ui/page';
import { Unwritten } from '@/logbook/unwritten';
import { useDraftForm } from '@/ui/use-draft-form';
import { EngineFields } from './engine-fields';
import { EMPTY_ENGINE, type EngineForm, readEngine } from './engine-form';
import { placeHref } from '@/shell/station-line';
import { newId, useWriteTo } from '@/logbook/use-logbook';

/** A short form: what engine it is. Works without a network. */
export function NewBuild() {
  const router = useRouter();
  const shopId = useAppSelector((state) => state.session.account?.shopId ?? '');
  const [buildId] = useState(newId);
  const write = useWriteTo(buildId);
  const form = useDraftForm<EngineForm>(`${shopId}/new-build`, EMPTY_ENGINE);
  const begin = form.handleSubmit((typed) => {
    write('build.described', { replaces: null, ...readEngine(typed) });
    write('trial.begun', { after: null });
    form.done();
    router.replace(placeHref(buildId, 'zero'));
  });
  return (
    <Page title="New build" back={{ href: '/', label: 'Builds' }}>
      <EngineFields form={form} />
      <Unwritten />
      <PrimaryButton testID="begin" label="Begin at Zero" onPress={() => void begin()} />
    </Page>
  );
}
