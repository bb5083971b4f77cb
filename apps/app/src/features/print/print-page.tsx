import { View } from 'react-native';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { Page } from '@/ui/page';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';
import { PrintBody } from './print-body';

const WHY = 'A wheel, a rim tape and worksheets, drawn to scale for the printer that prints them.';

/** Print, of a build. */
export function PrintPage() {
  const { report } = useStation();
  const { practice } = report.build;
  return (
    <StationBody footer={null}>
      <View className="gap-5 px-4 wide:px-0 pb-10 pt-4 wide:max-w-[720px]">
        <Words look="title" level={1}>
          Print
        </Words>
        <Words look="soft">{WHY}</Words>
        {practice ? <Words>A practice engine is not on the server: this is printed of no engine.</Words> : null}
        <PrintBody report={practice ? null : report} />
        <TextLink href={placeHref(report.build.id, 'sheet')} className="self-start py-2">
          The build sheet is printed at Sheet
        </TextLink>
      </View>
    </StationBody>
  );
}

/** Print, of no build. */
export const PrintAnywhere = () => (
  <Page title="Print" back={{ href: '/', label: 'Builds' }}>
    <Words look="soft">{`${WHY} From a build they come with its own rings, order and figures.`}</Words>
    <PrintBody report={null} />
  </Page>
);
