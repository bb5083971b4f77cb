import { Page } from '@/ui/page';
import { Words } from '@/ui/words';

export default function NotFound() {
  return (
    <Page title="Nothing at this address" back={{ href: '/', label: 'Builds' }}>
      <Words>The address is mistyped, or it led to something that has moved.</Words>
    </Page>
  );
}
