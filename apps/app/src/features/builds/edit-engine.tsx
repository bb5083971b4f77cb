import { useRouter } from 'expo-router';
import type { Report } from '@yosoku/core/report/report';
import { useAppSelector } from '@/store/store';
import { selectEntries } from '@/store/selectors';
import { PrimaryButton } from '@/ui/buttons';
import { Page } from '@/ui/page';
import { Unwritten } from '@/logbook/unwritten';
import { useDraftForm } from '@/ui/use-draft-form';
import { Words } from '@/ui/words';
import { EngineFields } from './engine-fields';
import { type EngineForm, engineForm, readEngine } from './engine-form';
import { placeHref } from '@/shell/station-line';
import { BuildMissing, useBuildHere } from '@/shell/station-screen';
import type { Write } from '@/logbook/use-logbook';

/** Corrects what was said of the engine. The old words stay in the logbook. */
export function EditEngine() {
  const { report, write, news } = useBuildHere();
  return report ? <EngineEditor report={report} write={write} /> : <BuildMissing news={news} />;
}

function EngineEditor({ report, write }: { readonly report: Report; readonly write: Write }) {
  const router = useRouter();
  const { id } = report.build;
  const described = useAppSelector((state) =>
    selectEntries(state, id).findLast((entry) => entry.kind === 'build.described'),
  );
  const form = useDraftForm<EngineForm>(`${id}/engine`, engineForm(report));
  const save = form.handleSubmit((typed) => {
    write('build.described', { replaces: described?.id ?? null, ...readEngine(typed, report.build.rings) });
    form.done();
    router.replace(placeHref(id, 'zero'));
  });
  return (
    <Page title="The engine" back={{ href: placeHref(id, 'zero'), label: report.build.name }}>
      <Words look="soft">
        Readings already taken keep the ring that they were read on; a change of numbering holds for the next ones.
      </Words>
      <EngineFields form={form} />
      <Unwritten />
      <PrimaryButton testID="engine-save" label="Save" onPress={() => void save()} />
    </Page>
  );
}
