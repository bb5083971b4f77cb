import { TextLink } from '@/ui/text-link';
import { type ThemeChoice, selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '@/ui/choice';
import { Page } from '@/ui/page';

import { BenchBoxes } from './bench-boxes';
import { Boards } from './boards';
import { Builders } from './builders';
import { Letterhead } from './letterhead';
import { OwnAccess } from './own-access';
import { ReadRule, ZeroRule } from './shop-rules';
import { SignOut } from './sign-out';

const THEMES: readonly { readonly value: ThemeChoice; readonly label: string }[] = [
  { value: 'system', label: 'As the device' },
  { value: 'dye', label: 'Dye (dark)' },
  { value: 'sheet', label: 'Sheet (light)' },
];

/** The shop: its builders, one's own access, the look, and the way out. */
export function Shop() {
  const dispatch = useAppDispatch();
  const account = useAppSelector((state) => state.session.account);
  const theme = useAppSelector(selectSettings).theme;

  return (
    <Page title={account?.shopName ?? 'The shop'} back={{ href: '/', label: 'Builds' }}>
      <Choice
        label="Look"
        options={THEMES}
        value={theme}
        onChange={(value) => dispatch(settingsChanged({ theme: value }))}
        testID="theme"
      />
      <TextLink href="/hardware" testID="to-shelf" className="self-start py-2">
        Timing hardware on the shelf
      </TextLink>
      <TextLink href="/device" testID="to-device" className="self-start py-2">
        This device at the engine: voice, pedals, from afar
      </TextLink>
      <TextLink href="/phone" testID="to-phone" className="self-start py-2">
        A phone at the engine
      </TextLink>
      <SignOut />
      <OwnAccess />
      <Builders />
      <ZeroRule />
      <ReadRule />
      <Letterhead />
      <BenchBoxes />
      <Boards />
    </Page>
  );
}
