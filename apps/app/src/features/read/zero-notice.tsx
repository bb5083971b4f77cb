import { TextLink } from '@/ui/text-link';
import { placeHref } from '@/shell/station-line';
import { Notice } from '@/ui/notice';
import { useStation } from '@/logbook/station';

/** What reading on an unproved zero means. */
export function ZeroNotice() {
  const {
    report: { zero, build, prepare },
  } = useStation();
  // Without a wheel there is none to prove.
  if (zero.state === 'proved' || (zero.state === 'none' && prepare.asItStands?.wheel === false)) return null;
  return (
    <Notice
      kind="warning"
      message={zero.state === 'void' ? 'TDC is no longer valid.' : 'TDC is not proved on this wheel.'}
      remedy="You can read on and nothing is lost, but there will be no verdict from it until the zero is proved."
    >
      <TextLink href={placeHref(build.id, 'zero')} replace small className="py-2">
        Go to Zero
      </TextLink>
    </Notice>
  );
}
