import { View } from 'react-native';
import { SheetView } from '@/findings/sheet-view';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { selectOwnPhotosWaiting, selectOwnWaiting } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useWide } from '@/ui/layout';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { OnBoard } from './on-board';
import { TakeAway } from './take-away';

/** The sheet on a phone, and on either what can be taken away of it: paper, readings, the whole logbook. */
export function SheetScreen() {
  const { report, write } = useStation();
  const wide = useWide();
  const { id } = report.build;
  const entriesWait = useAppSelector(selectOwnWaiting).some(({ entry }) => entry.buildId === id);
  const photosWait = useAppSelector(selectOwnPhotosWaiting).some(({ buildId }) => buildId === id);
  const closed = report.sign.closed;
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
          <>
            <TakeAway />
            <OnBoard />
          </>
        )}
        {entriesWait || photosWait ? (
          <Words look="soft">
            Some entries or photos still wait to be sent: the printed sheet shows what the server has; file and CSV have
            it all.
          </Words>
        ) : null}
        {wide ? null : (
          <SheetView report={report} onVoid={closed ? null : (entry) => void write('entry.voided', { voids: entry })} />
        )}
      </View>
    </StationBody>
  );
}
