import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { CamBalance } from '@/findings/cam-balance';
import { ViewList } from '@/findings/view-list';
import { useStation } from '@/logbook/station';
import { PictureBeside } from '@/shell/picture-beside';
import { Words } from '@/ui/words';
import { FaultList } from './fault-list';

type Trial = Report['trials'][number];

/** Where each cam sits, and what was measured. */
export const Evidence = ({ trial }: { readonly trial: Trial }) => (
  <PictureBeside
    picture={(width) =>
      trial.cams.map((each) => <WhereItSits key={`${each.cam} ${each.bank}`} trial={trial} cam={each} width={width} />)
    }
  >
    <View className="px-4 wide:px-0">
      <FaultList faults={trial.faults} />
      <ViewList views={trial.views} />
    </View>
  </PictureBeside>
);

interface WhereItSitsProps {
  readonly trial: Trial;
  readonly cam: Trial['cams'][number];
  readonly width: number;
}

function WhereItSits({ trial, cam: found, width }: WhereItSitsProps) {
  const { build } = useStation().report;
  const { cam, bank } = found;
  const name = cam === 'intake' ? 'Intake cam' : 'Exhaust cam';
  return (
    <View className="items-center" testID={`cam-${cam}${bank === 2 ? '-2' : ''}`}>
      {cam === 'single' ? null : (
        <Words look="heading" level={2} className="w-full px-4 wide:px-0">
          {build.engine.secondBank === null ? name : `${name}, bank ${bank}`}
        </Words>
      )}
      <CamBalance trial={trial} cam={found} width={width} />
    </View>
  );
}
