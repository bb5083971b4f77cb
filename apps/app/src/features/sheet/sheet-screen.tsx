import { TextLink } from '@/ui/text-link';
import { useState } from 'react';
import { View } from 'react-native';
import { writeBuildFile } from '@yosoku/core/record/file';
import { READING_COLUMNS, readingsTable } from '@yosoku/core/report/readings-table';
import { StationBody } from '@/shell/station-body';
import { selectEntries, selectOwnWaiting } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { openPdf } from '@/sheets/open-pdf';
import { saveText } from '@/sheets/save-text';
import { api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { SheetView } from '@/findings/sheet-view';
import { useStation } from '@/logbook/station';

const PAPERS = [
  { paper: 'a4', label: 'Print it, A4' },
  { paper: 'letter', label: 'Print it, Letter' },
] as const;

/** The sheet on a phone, and on either what can be taken away of it: paper, readings, the whole logbook. */
export function SheetScreen() {
  const { report, write } = useStation();
  const wide = useWide();
  const { id, name } = report.build;
  const entries = useAppSelector((state) => selectEntries(state, id));
  const account = useAppSelector((state) => state.session.account);
  const waiting = useAppSelector(selectOwnWaiting).some(({ entry }) => entry.buildId === id);
  const [trouble, setTrouble] = useState<string | null>(null);
  const fileName = name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();

  const saveFile = async (): Promise<void> => {
    const own = account ? [{ id: account.builderId, name: account.builderName }] : [];
    // Without a network the file still holds every entry, and at least one’s own name.
    const builders = await ask(api.builds[':id'].builders.$get({ param: { id } }))
      .then((answer) => answer.builders)
      .catch(() => own);
    saveText(`${fileName}.yosoku.json`, writeBuildFile(entries, builders), 'application/json');
  };
  const saveReadings = async (): Promise<void> => {
    const { unparse } = (await import('papaparse')).default;
    // A spreadsheet must not take a name for a formula.
    const csv = unparse(readingsTable(entries), { columns: [...READING_COLUMNS], escapeFormulae: true });
    saveText(`${fileName}.csv`, `${csv}\r\n`, 'text/csv');
  };
  const print = async (paper: (typeof PAPERS)[number]['paper']): Promise<void> => {
    setTrouble(null);
    setTrouble(await openPdf(api.builds[':id']['sheet.pdf'].$url({ param: { id }, query: { paper } })));
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
        {report.build.practice ? (
          <Words look="soft">A practice is not printed, and not kept as a file.</Words>
        ) : (
          <View className="flex-row flex-wrap gap-x-6">
            {PAPERS.map(({ paper, label }) => (
              <QuietButton key={paper} testID={`print-${paper}`} label={label} onPress={() => void print(paper)} />
            ))}
            <QuietButton testID="save-readings" label="The readings as CSV" onPress={() => void saveReadings()} />
            <QuietButton testID="save-file" label="Save the logbook as a file" onPress={() => void saveFile()} />
            <TextLink href={`/builds/${id}/engine`} className="px-2 py-3">
              The engine
            </TextLink>
          </View>
        )}
        {waiting ? (
          <Words look="soft">
            Some entries still wait to be sent: the printed sheet shows what the server has; file and CSV have it all.
          </Words>
        ) : null}
        {trouble ? (
          <Words role="alert" tone="danger" testID="print-trouble">
            {trouble}
          </Words>
        ) : null}
        {wide ? null : (
          <SheetView
            report={report}
            onVoid={report.sign.closed ? null : (entry) => void write('entry.voided', { voids: entry })}
          />
        )}
      </View>
    </StationBody>
  );
}
