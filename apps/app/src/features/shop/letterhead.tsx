import { useState } from 'react';
import { Image, View } from 'react-native';
import { LETTERHEAD_LINES, LOGO_BYTES, letterheadText } from '@yosoku/core/paper/letterhead';
import { useDraft } from '@/store/use-draft';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';
import { sendLogo, useLetterhead } from '@/sync/use-letterhead';
import { QuietButton } from '@/ui/buttons';
import { FileField } from '@/ui/file-field';
import { More } from '@/ui/more';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const MOST_MB = LOGO_BYTES / 1024 / 1024;
/** Room for the logo on the screen, pixels. */
const ROOM = { width: 150, height: 54 } as const;

/** The head of the shop’s sheets: everyone sees it, the owner sets it. */
export function Letterhead() {
  const isOwner = useAppSelector((state) => state.session.account?.role === 'owner');
  const { letterhead, address, again } = useLetterhead();
  return (
    <View className="gap-2" testID="letterhead">
      <Words look="heading" level={2}>
        Letterhead
      </Words>
      <Words look="soft">At the head of build sheets, the customer’s too, and of sheets for the piston maker.</Words>
      {letterhead === 'loading' ? <Words look="soft">Loading the letterhead.</Words> : null}
      {letterhead === 'unreachable' ? <Words look="soft">The server cannot be reached.</Words> : null}
      {typeof letterhead === 'string' ? null : (
        <>
          <OnPaper words={letterhead.words} logo={letterhead.logo} address={address} />
          {isOwner ? (
            <More label="Change the letterhead" testID="more-letterhead">
              <View className="gap-4">
                <Lines kept={letterhead.words} onKept={again} />
                <Logo isThere={letterhead.logo !== null} onKept={again} />
              </View>
            </More>
          ) : null}
        </>
      )}
    </View>
  );
}

interface OnPaperProps {
  readonly words: string;
  readonly logo: { readonly width: number; readonly height: number } | null;
  readonly address: string;
}

/** As it is printed: dark on white in either look, so that a logo of dark ink is seen. */
function OnPaper({ words, logo, address }: OnPaperProps) {
  const shopName = useAppSelector((state) => state.session.account?.shopName ?? '');
  const scale = logo ? Math.min(ROOM.width / logo.width, ROOM.height / logo.height) : 0;
  return (
    <View
      testID="letterhead-paper"
      className="flex-row flex-wrap items-start justify-between gap-4 border border-line bg-paper p-4"
    >
      <View className="shrink">
        <Words look="label" tone="onPaper">
          {shopName}
        </Words>
        {words === '' ? null : (
          <Words look="soft" tone="onPaper">
            {words}
          </Words>
        )}
      </View>
      {logo ? (
        <Image
          testID="letterhead-logo"
          source={{ uri: address }}
          alt={`Logo of ${shopName}`}
          resizeMode="contain"
          style={{ width: logo.width * scale, height: logo.height * scale }}
        />
      ) : null}
    </View>
  );
}

interface PartProps {
  /** Asks the server for what it has now. */
  readonly onKept: () => void;
}

function Lines({ kept, onKept }: PartProps & { readonly kept: string }) {
  const { draft, change, done } = useDraft('letterhead');
  const { busy, trouble, attempt } = useAttempt();
  const [seen, setSeen] = useState(false);
  const words = draft.words ?? kept;
  const checked = letterheadText.safeParse(words);
  const wrong = checked.success ? undefined : checked.error.issues[0]?.message;
  const keep = async (): Promise<void> => {
    setSeen(true);
    if (!checked.success) return;
    if (!(await attempt(() => ask(api.shop.letterhead.$put({ json: { words } }))))) return;
    done();
    onKept();
  };
  return (
    <View className="gap-2">
      <TextField
        testID="letterhead-words"
        label={`Under the shop’s name, up to ${LETTERHEAD_LINES} lines: address, how to be reached`}
        numberOfLines={LETTERHEAD_LINES}
        value={words}
        onChange={(text) => change({ words: text })}
        onBlur={() => setSeen(true)}
        error={(seen ? wrong : undefined) ?? trouble?.fields.words ?? trouble?.message}
      />
      <View className="items-start">
        <QuietButton
          testID="letterhead-save"
          label={busy ? 'Saving' : 'Save these lines'}
          onPress={() => void keep()}
        />
      </View>
    </View>
  );
}

function Logo({ isThere, onKept }: PartProps & { readonly isThere: boolean }) {
  const { busy, trouble, attempt } = useAttempt();
  const [tooLarge, setTooLarge] = useState<string | null>(null);
  const send = async (file: File): Promise<void> => {
    setTooLarge(
      file.size > LOGO_BYTES
        ? `“${file.name}” has ${(file.size / 1024 / 1024).toFixed(1)} MB, and a logo at most ${MOST_MB}. It was not sent; nothing has changed.`
        : null,
    );
    if (file.size <= LOGO_BYTES && (await attempt(() => sendLogo(file)))) onKept();
  };
  const remove = async (): Promise<void> => {
    setTooLarge(null);
    if (await attempt(() => ask(api.shop.logo.$delete()))) onKept();
  };
  const wrong = tooLarge ?? trouble?.message;
  return (
    <View className="gap-1">
      <Words look="soft">
        The logo is a drawing (SVG, its letters turned into paths) or a picture (PNG), of at most {MOST_MB} MB.
      </Words>
      <View className="flex-row flex-wrap items-center gap-x-6">
        <FileField
          label={isThere ? 'Choose another logo' : 'Choose a logo'}
          testID="logo-file"
          accept=".svg,.png,image/svg+xml,image/png"
          onFile={(file) => void send(file)}
        />
        {isThere ? <QuietButton testID="logo-remove" label="Remove the logo" onPress={() => void remove()} /> : null}
      </View>
      {busy ? (
        <Words look="soft" role="status">
          Sending the logo.
        </Words>
      ) : null}
      {wrong === undefined ? null : (
        <Words role="alert" tone="danger" testID="logo-trouble">
          {wrong}
        </Words>
      )}
    </View>
  );
}
