import { NORMAL_95 } from '@yosoku/core/statistics/normal';
import { useState } from 'react';
import { View } from 'react-native';
import { HARDWARE_KINDS } from '@yosoku/core/timing-set/hardware';
import { learnResponse } from '@yosoku/core/timing-set/learned-response';
import { newId } from '@/logbook/use-logbook';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { HardwareFields } from '@/forms/hardware/hardware-fields';
import { EMPTY_HARDWARE, type HardwareForm, hardwareForm, readHardware } from '@/forms/hardware/hardware-form';
import { type Piece, useShelf } from '@/forms/hardware/use-shelf';

const PLACE = 'shelf/piece';

/** The shelf: the timing hardware of the shop, what each piece is and what it really gave. */
export function ShelfPage() {
  const { shelf, keep, takeOff } = useShelf();
  const typed = useDraft<keyof HardwareForm | 'id'>(PLACE);
  const { draft, change } = typed;
  const [asked, setAsked] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const form = typed.isBegun ? ({ ...EMPTY_HARDWARE, ...draft } as HardwareForm) : null;
  const done = (): void => {
    typed.done();
    setAsked(false);
    setTrouble(null);
  };
  const save = async (): Promise<void> => {
    if (!form) return;
    const read = readHardware(form, 'in');
    setAsked(true);
    if (!read.ok) return;
    setBusy(true);
    const wrong = await keep({ id: draft.id ?? newId(), name: read.name, hardware: read.hardware });
    setBusy(false);
    setTrouble(wrong);
    if (!wrong) done();
  };
  return (
    <Page title="Timing hardware" back={{ href: '/shop', label: 'The shop' }}>
      {form ? (
        <View className="gap-4">
          <HardwareFields form={form} units="in" onChange={change} asked={asked} />
          {trouble ? (
            <Words role="alert" tone="danger">
              {trouble}
            </Words>
          ) : null}
          <PrimaryButton testID="shelf-keep" label="Save it to the shelf" disabled={busy} onPress={() => void save()} />
          <View className="items-start">
            <QuietButton label="Not now" onPress={done} />
          </View>
        </View>
      ) : (
        <PrimaryButton testID="shelf-new" label="Put a piece on the shelf" onPress={() => change({})} />
      )}
      {shelf === 'asking' ? (
        <Words look="soft">Loading the shelf.</Words>
      ) : shelf === 'unreachable' ? (
        <Words>The server cannot be reached just now. Hardware can still be described at a build’s Move station.</Words>
      ) : shelf.length === 0 ? (
        <Words>
          The shelf is empty. Put on it what the shop moves cams with: gears with several keyways, bushings, slotted
          wheels. Then it is one tap away at Move, and what each piece really gives is remembered.
        </Words>
      ) : (
        <View role="list" testID="shelf">
          {shelf.map((piece) => (
            <View key={piece.id} role="listitem" className="gap-1 border-b border-hairline py-3">
              <Words look="label">{piece.name}</Words>
              <Words look="soft">{`${HARDWARE_KINDS[piece.hardware.kind].name}. ${learnedWords(piece)}`}</Words>
              <View className="flex-row flex-wrap justify-end gap-x-4">
                <QuietButton
                  label={`Correct ${piece.name}`}
                  onPress={() => change({ ...hardwareForm(piece.name, piece.hardware, 'in'), id: piece.id })}
                />
                <QuietButton label="Take it off the shelf" onPress={() => void takeOff(piece.id).then(setTrouble)} />
              </View>
            </View>
          ))}
        </View>
      )}
    </Page>
  );
}

function learnedWords({ hardware, experience }: Piece): string {
  if (experience.length === 0) return 'Not measured yet: taken at its label.';
  const { response, standard } = learnResponse(hardware, experience);
  const per = (share: number): string => `${Math.round(100 * share)} %`;
  return `Gives ${per(response)} of its label, ±${per(NORMAL_95 * standard)}, from ${experience.length} measured ${experience.length === 1 ? 'move' : 'moves'}.`;
}
