import { Link } from 'expo-router';
import { View } from 'react-native';
import { writeBuildFile } from '@yosoku/core/logbook/file';
import { StationBody } from '@/features/builds/station-body';
import type { StationProps } from '@/features/builds/station-screen';
import { selectEntries } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { saveText } from './save-text';
import { SheetView } from './sheet-view';

/** The sheet on a phone, and the file of the build on either. */
export function SheetScreen({ report, write }: StationProps) {
  const wide = useWide();
  const entries = useAppSelector((state) => selectEntries(state, report.build.id));
  const account = useAppSelector((state) => state.session.account);
  const save = (): void => {
    const known = account ? [{ id: account.builderId, name: account.builderName }] : [];
    const name = report.build.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
    saveText(`${name}.yosoku.json`, writeBuildFile(entries, known), 'application/json');
  };
  return (
    <StationBody footer={null}>
      <View className="gap-5 px-4 wide:px-0 pb-10 pt-4">
        <Words look="title" level={1}>
          {report.verdict.headline}
        </Words>
        <Words>{report.verdict.action}</Words>
        {report.problems.map((problem) => (
          <Notice key={problem.entries.join()} kind="warning" message={problem.message} remedy={problem.remedy} />
        ))}
        <View className="flex-row flex-wrap gap-x-6">
          <QuietButton testID="save-file" label="Save the logbook as a file" onPress={save} />
          <Link href={`/builds/${report.build.id}/engine`} className="py-3 font-medium text-[17px] text-brass">
            The engine
          </Link>
        </View>
        {wide ? null : <SheetView report={report} onVoid={(entry) => void write('entry.voided', { voids: entry })} />}
      </View>
    </StationBody>
  );
}
