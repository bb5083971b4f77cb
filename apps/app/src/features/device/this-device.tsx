import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { TAUGHT, type Taught, selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { canStayAwake } from '@/ui/awake';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { SAME_PRESS_MS } from '@/ui/taught-keys';
import { hasVoice, sayNow } from '@/ui/voice';
import { Words } from '@/ui/words';
import { YesNo } from '@/ui/yes-no';

const HANDS = [
  { value: 'right', label: 'Right thumb' },
  { value: 'left', label: 'Left thumb' },
] as const;

/** How this device works at the engine: what it says, how it feels, which keys it heeds. */
export function ThisDevice() {
  const dispatch = useAppDispatch();
  const settings = useAppSelector(selectSettings);
  const change = (part: Parameters<typeof settingsChanged>[0]): void => void dispatch(settingsChanged(part));
  return (
    <Page title="This device at the engine" back={{ href: '/shop', label: 'The shop' }}>
      {canStayAwake() ? null : (
        <Notice
          kind="warning"
          testID="not-awake"
          message="This screen cannot be kept awake here."
          remedy={
            globalThis.isSecureContext
              ? 'This browser does not know how. Set the device itself to stay on longer.'
              : 'Browsers do that over https only. On the machine that Yosoku runs on: npm start -- --lan'
          }
        />
      )}
      <View className="gap-3">
        <Words look="heading" level={2}>
          Spoken
        </Words>
        <View className="flex-row">
          <YesNo
            testID="spoken"
            label="Say what to do, and read back what was kept?"
            value={settings.spoken}
            onChange={(spoken) => change({ spoken })}
          />
        </View>
        {hasVoice() ? (
          <View className="items-start">
            <QuietButton
              testID="try-voice"
              label="Try it"
              onPress={() => sayNow('Fifty thou before peak, coming forward. Read the wheel.')}
            />
          </View>
        ) : (
          <Notice
            kind="warning"
            message="This browser has no voice."
            remedy="Everything stands on the screen all the same."
          />
        )}
        <Words look="soft">V says it once more, whether it is on or not.</Words>
      </View>
      <View className="gap-3">
        <Words look="heading" level={2}>
          When a reading is kept
        </Words>
        <View className="flex-row">
          <YesNo testID="buzz" label="A short buzz?" value={settings.buzz} onChange={(buzz) => change({ buzz })} />
        </View>
        <View className="flex-row">
          <YesNo testID="tick" label="A tick?" value={settings.tick} onChange={(tick) => change({ tick })} />
        </View>
      </View>
      <View className="gap-3">
        <Words look="heading" level={2}>
          The screen
        </Words>
        <Choice
          testID="hand"
          label="The keypad is for the"
          options={HANDS}
          value={settings.hand}
          onChange={(hand) => change({ hand })}
        />
        <View className="flex-row">
          <YesNo
            testID="from-afar"
            label="Readable from three metres at Zero and Read?"
            value={settings.fromAfar}
            onChange={(fromAfar) => change({ fromAfar })}
          />
        </View>
      </View>
      <TaughtKeys keys={settings.keys} onChange={(keys) => change({ keys })} />
    </Page>
  );
}

const DOES: Readonly<Record<Taught, string>> = {
  record: 'Record what is typed',
  take: 'Take it from the instrument',
  sync: 'Sync the instrument to the wheel',
  zero: 'Zero the indicator',
  undo: 'Undo',
  next: 'Next',
  other: 'Read the cam another way: centreline, events',
  repeat: 'Say it once more',
  more: 'Reading up ¼°',
  less: 'Reading down ¼°',
};

/** They lead away from here, or out of the page. */
const NEVER = new Set(['Escape', 'Tab', 'F5', 'F11', 'F12']);

type Keys = Readonly<Partial<Record<Taught, string>>>;

/** Pedals, rings and remotes are keyboards: press one, and it is known. */
function TaughtKeys({ keys, onChange }: { readonly keys: Keys; readonly onChange: (keys: Keys) => void }) {
  const [teaching, setTeaching] = useState<Taught | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    if (teaching === null) return;
    let first: string | null = null;
    let done: ReturnType<typeof setTimeout> | undefined;
    const hear = (event: KeyboardEvent): void => {
      event.preventDefault();
      event.stopImmediatePropagation();
      if (event.repeat) return;
      if (event.code === 'Escape') {
        setTeaching(null);
        return;
      }
      if (first) {
        setSaid(`That press sends two keys, ${first} and ${event.code}. The first counts, the second is ignored.`);
        return;
      }
      if (event.code === '' || NEVER.has(event.code)) {
        setSaid(
          `${event.code === '' ? 'That key has no name' : event.code}: the browser needs it. Set the pedal to another.`,
        );
        return;
      }
      const { code } = event;
      const others = Object.fromEntries(Object.entries(keys).filter(([, each]) => each !== code)) as Keys;
      first = code;
      setSaid(null);
      done = setTimeout(() => {
        onChange({ ...others, [teaching]: code });
        setTeaching(null);
      }, SAME_PRESS_MS);
    };
    document.addEventListener('keydown', hear, true);
    return () => {
      clearTimeout(done);
      document.removeEventListener('keydown', hear, true);
    };
  }, [teaching, keys, onChange]);
  return (
    <View className="gap-2">
      <Words look="heading" level={2}>
        Pedal, ring or remote
      </Words>
      <Words>Whatever sends a key can be taught. Choose what it does, then press it once.</Words>
      {said ? <Notice kind="warning" testID="taught-said" message={said} /> : null}
      <View role="list">
        {TAUGHT.map((does) => (
          <View
            key={does}
            role="listitem"
            className="min-h-[48px] flex-row flex-wrap items-center justify-between gap-x-3 border-b border-hairline"
          >
            <Words className="shrink grow">{DOES[does]}</Words>
            <Words look="soft" testID={`taught-${does}`}>
              {teaching === does ? 'Press it now. Esc stops.' : (keys[does] ?? '')}
            </Words>
            <QuietButton
              testID={`teach-${does}`}
              label={keys[does] === undefined ? 'Teach' : 'Forget'}
              onPress={() => {
                setSaid(null);
                if (keys[does] === undefined) setTeaching(does);
                else onChange(Object.fromEntries(Object.entries(keys).filter(([name]) => name !== does)) as Keys);
              }}
            />
          </View>
        ))}
      </View>
    </View>
  );
}
