import { useState } from 'react';
import { View } from 'react-native';
import { writeBuildFile } from '@yosoku/core/record/file';
import { READING_COLUMNS, readingsTable } from '@yosoku/core/report/readings-table';
import { useStation } from '@/logbook/station';
import { fetchPicture } from '@/photos/use-picture';
import { placeHref } from '@/shell/station-line';
import { PAPERS, type Paper, openPdf } from '@/sheets/open-pdf';
import { fileNameOf, saveFile, saveText } from '@/sheets/save-file';
import { selectEntries } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';

/** What can be taken away of a build: paper, readings, the whole logbook, with its photos. */
export function TakeAway() {
  const { report } = useStation();
  const { id, name } = report.build;
  const photos = report.photos.taken;
  const entries = useAppSelector((state) => selectEntries(state, id));
  const account = useAppSelector((state) => state.session.account);
  const [trouble, setTrouble] = useState<string | null>(null);
  const fileName = fileNameOf(name);

  const logbook = async (): Promise<string> => {
    const own = account ? [{ id: account.builderId, name: account.builderName }] : [];
    // Without a network the file still holds every entry, and at least one’s own name.
    const builders = await ask(api.builds[':id'].builders.$get({ param: { id } }))
      .then((answer) => answer.builders)
      .catch(() => own);
    return writeBuildFile(entries, builders);
  };
  const saveLogbook = async (): Promise<void> =>
    saveText(`${fileName}.yosoku.json`, await logbook(), 'application/json');
  const saveWithPhotos = async (): Promise<void> => {
    setTrouble(null);
    const { packLogbook } = await import('@/sheets/logbook-zip');
    let missing = 0;
    const pictures = async function* () {
      for (const picture of new Set(photos.map((each) => each.picture))) {
        const bytes = await fetchPicture(account?.shopId ?? '', id, picture).catch(() => null);
        if (bytes) yield { picture, bytes: new Uint8Array(await bytes.arrayBuffer()) };
        else missing += 1;
      }
    };
    saveFile(`${fileName}.yosoku.zip`, await packLogbook(await logbook(), pictures()));
    if (missing > 0)
      setTrouble(
        `${missing} of ${photos.length} photos are not on this device, and the server has not got them or cannot be reached: the file was saved without them.`,
      );
  };
  const saveReadings = async (): Promise<void> => {
    const { unparse } = (await import('papaparse')).default;
    // A spreadsheet must not take a name for a formula.
    const csv = unparse(readingsTable(entries), { columns: [...READING_COLUMNS], escapeFormulae: true });
    saveText(`${fileName}.csv`, `${csv}\r\n`, 'text/csv');
  };
  const print = async (paper: Paper, reader: 'shop' | 'customer' = 'shop'): Promise<void> => {
    setTrouble(null);
    setTrouble(await openPdf(api.builds[':id']['sheet.pdf'].$url({ param: { id }, query: { paper, reader } })));
  };
  return (
    <>
      <View className="flex-row flex-wrap gap-x-6">
        {PAPERS.map(({ paper, label }) => (
          <QuietButton key={paper} testID={`print-${paper}`} label={label} onPress={() => void print(paper)} />
        ))}
        {PAPERS.map(({ paper, name }) => (
          <QuietButton
            key={paper}
            testID={`print-customer-${paper}`}
            label={`For the customer, ${name}`}
            onPress={() => void print(paper, 'customer')}
          />
        ))}
        <QuietButton testID="save-readings" label="The readings as CSV" onPress={() => void saveReadings()} />
        <QuietButton testID="save-file" label="Save the logbook as a file" onPress={() => void saveLogbook()} />
        {photos.length > 0 ? (
          <QuietButton testID="save-zip" label="Save it with its photos (zip)" onPress={() => void saveWithPhotos()} />
        ) : null}
        <TextLink href={placeHref(id, 'print')} replace testID="to-print" className="px-2 py-3">
          Wheel, tape and worksheets
        </TextLink>
        <TextLink href={placeHref(id, 'photos')} replace className="px-2 py-3">
          {photos.length === 0 ? 'Photos' : `Photos (${photos.length})`}
        </TextLink>
        <TextLink href={`/builds/${id}/engine`} className="px-2 py-3">
          The engine
        </TextLink>
      </View>
      {trouble ? (
        <Words role="alert" tone="danger" testID="print-trouble">
          {trouble}
        </Words>
      ) : null}
    </>
  );
}
