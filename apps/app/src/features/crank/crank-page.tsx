import { View } from 'react-native';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';
import { MarkCheck } from './mark-check';
import { PistonTravel } from './piston-travel';
import { RimConversion } from './rim-conversion';
import { WhichTdc } from './which-tdc';

/** What else the crank has to say: which TDC it is, where the other cylinders' are, the engine's own mark, how the piston travels. */
export function CrankPage() {
  const { report } = useStation();
  return (
    <StationBody footer={null}>
      <View className="gap-8 px-4 wide:px-0 pb-10 pt-4">
        <Words look="title" level={1}>
          The crank
        </Words>
        <WhichTdc />
        <MarkCheck />
        <RimConversion />
        <PistonTravel />
        <TextLink href={placeHref(report.build.id, 'print')} testID="to-print" className="self-start py-2">
          Print a wheel or a rim tape
        </TextLink>
      </View>
    </StationBody>
  );
}
