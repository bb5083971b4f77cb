import { Link } from 'expo-router';
import type { Report } from '@yosoku/core/report/report';
import { placeHref } from '@/shell/station-line';
import { Notice } from '@/ui/notice';

/** What reading on an unproved zero means. */
export function ZeroNotice({ report: { zero, build, prepare } }: { readonly report: Report }) {
  // Without a wheel there is none to prove.
  if (zero.state === 'proved' || (zero.state === 'none' && prepare.asItStands?.wheel === false)) return null;
  return (
    <Notice
      kind="warning"
      message={zero.state === 'void' ? 'TDC is no longer valid.' : 'TDC is not proved on this wheel.'}
      remedy="You can read on and nothing is lost, but there will be no verdict from it until the zero is proved."
    >
      <Link href={placeHref(build.id, 'zero')} replace className="py-2 font-medium text-[16px] text-brass">
        Go to Zero
      </Link>
    </Notice>
  );
}
