import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { HARDWARE_KINDS, straightUp } from '@yosoku/core/timing-set/hardware';
import { newId } from '@/logbook/use-logbook';
import { HardwareFields } from '@/forms/hardware/hardware-fields';
import { EMPTY_HARDWARE, type HardwareForm, readHardware } from '@/forms/hardware/hardware-form';
import { type Piece, useShelf } from '@/forms/hardware/use-shelf';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';
import { Stands } from './stands';
import { useStation } from '@/logbook/station';

type Fitted = BodyOf<'drive.fitted'>['parts'][number];
type Part = Report['drive']['parts'][number];

const asFitted = ({ part, name, library, hardware, cam, bank, setting, experience }: Part): Fitted => ({
  part,
  name,
  library,
  hardware,
  cam,
  bank,
  at: setting,
  experience: [...experience],
});

const CAM_TURNS = [
  { value: 'with-crank', label: 'With the crank' },
  { value: 'against-crank', label: 'Against it' },
] as const;

/** The timing hardware on this drive: what it is, which cam it turns, where it stands, what it has taught. */
export function DriveParts() {
  const { report, write } = useStation();
  const { drive, read, prepare } = report;
  const [adding, setAdding] = useState(false);
  const state = (parts: readonly Fitted[], camTurns = drive.camTurns): void => {
    const trial = read.trial ?? write('trial.begun', { after: null });
    write('drive.fitted', { replaces: drive.entry, trial, camTurns, parts: [...parts] });
  };
  const parts = drive.parts.map(asFitted);
  const put = (part: string, changed: Partial<Fitted>): void =>
    state(parts.map((each) => (each.part === part ? { ...each, ...changed } : each)));
  return (
    <View className="gap-3" testID="drive">
      <Words look="heading" level={2}>
        On the drive
      </Words>
      {drive.parts.length === 0 ? (
        <Words look="soft">Nothing yet. Add what this engine’s cam can be moved with; several may be added.</Words>
      ) : null}
      {drive.parts.map((part) => (
        <View key={part.part} className="gap-2 border-t border-hairline pt-2" testID="drive-part">
          <View className="flex-row flex-wrap items-baseline justify-between gap-x-3">
            <Words look="label" className="shrink">
              {part.name}
            </Words>
            <Words look="figure">{part.stands}</Words>
          </View>
          <Words look="soft">
            {`${HARDWARE_KINDS[part.kind].name}, turns ${part.turns.join(' and ')}.${part.learned ? ` ${part.learned}` : ''}`}
          </Words>
          <More label={`Where ${part.name} stands, or off it comes`}>
            <WhichCam part={part} onChange={(changed) => put(part.part, changed)} />
            <Stands hardware={part.hardware} at={part.setting} onChange={(at) => put(part.part, { at })} />
            <View className="items-start">
              <QuietButton
                testID="part-off"
                label="It is not on this drive"
                onPress={() => state(parts.filter((each) => each.part !== part.part))}
              />
            </View>
          </More>
        </View>
      ))}
      {prepare.asItStands?.drive === 'gear' ? (
        <Choice
          testID="cam-turns"
          label="Seen from the wheel, the cam turns"
          options={CAM_TURNS}
          value={drive.camTurns}
          onChange={(camTurns) => state(parts, camTurns)}
          hint="Two gears in mesh turn against each other; with one between them, alike."
        />
      ) : null}
      {adding ? (
        <AddPart
          onAdd={(fitted) => {
            state([...parts, fitted]);
            setAdding(false);
          }}
          onCancel={() => setAdding(false)}
        />
      ) : (
        <View className="items-start">
          <QuietButton testID="add-part" label="Add hardware" onPress={() => setAdding(true)} />
        </View>
      )}
    </View>
  );
}

const CAMS = [
  { value: 'all', label: 'Every cam' },
  { value: 'intake', label: 'Intake' },
  { value: 'exhaust', label: 'Exhaust' },
] as const;
const BANKS = [
  { value: 'both', label: 'Both banks' },
  { value: '1', label: 'Bank 1' },
  { value: '2', label: 'Bank 2' },
] as const;

/** Which cams a part turns: asked only where there are several. */
function WhichCam({
  part,
  onChange,
}: {
  readonly part: Pick<Fitted, 'cam' | 'bank'>;
  readonly onChange: (changed: Partial<Fitted>) => void;
}) {
  const { report } = useStation();
  const { cams, secondBank } = report.build.engine;
  if (cams !== 'twin') return null;
  return (
    <View className="gap-3">
      <Choice
        testID="part-cam"
        label="It turns"
        options={CAMS}
        value={part.cam}
        onChange={(cam) => onChange({ cam })}
      />
      {secondBank === null ? null : (
        <Choice
          testID="part-bank"
          label="On"
          options={BANKS}
          value={part.bank === null ? 'both' : part.bank === 1 ? '1' : '2'}
          onChange={(bank) => onChange({ bank: bank === 'both' ? null : bank === '1' ? 1 : 2 })}
        />
      )}
    </View>
  );
}

/** From the shelf, or described on the spot; then which cam it turns and where it stands. */
function AddPart({ onAdd, onCancel }: { readonly onAdd: (fitted: Fitted) => void; readonly onCancel: () => void }) {
  const { report } = useStation();
  const { build } = report;
  const { shelf, keep } = useShelf();
  const { draft, isBegun, change, done } = useDraft<keyof HardwareForm>(`${build.id}/hardware`);
  const form = isBegun ? ({ ...EMPTY_HARDWARE, ...draft } as HardwareForm) : null;
  const [asked, setAsked] = useState(false);
  const [chosen, setChosen] = useState<Fitted | null>(null);
  const [kept, setKept] = useState<string | null>(null);
  const take = ({ id, name, hardware, experience }: Piece, library: string | null = id): void =>
    setChosen({
      part: newId(),
      name,
      library,
      hardware,
      cam: 'all',
      bank: null,
      at: straightUp(hardware),
      // What it gave here is in this logbook already.
      experience: experience.filter(({ buildId }) => buildId !== build.id).map(({ buildId: _, ...move }) => move),
    });
  const describe = async (): Promise<void> => {
    if (!form) return;
    const read = readHardware(form, build.units);
    setAsked(true);
    if (!read.ok) return;
    const id = newId();
    const wrong = await keep({ id, name: read.name, hardware: read.hardware });
    setKept(wrong === null ? null : 'It is kept with this build only: the shelf could not be reached.');
    done();
    take({ id, name: read.name, hardware: read.hardware, experience: [] }, wrong === null ? id : null);
  };
  if (chosen) return <ChosenPart part={chosen} kept={kept} onChange={setChosen} onAdd={onAdd} />;
  if (form)
    return (
      <View className="gap-3 border-l-4 border-brass pl-3">
        <HardwareFields form={form} units={build.units} asked={asked} onChange={change} />
        <View className="flex-row flex-wrap gap-x-5">
          <QuietButton testID="describe-keep" label="Save it and go on" onPress={() => void describe()} />
          <QuietButton label="Not now" onPress={done} />
        </View>
      </View>
    );
  return (
    <View className="gap-2 border-l-4 border-brass pl-3" testID="choose-piece">
      {/* Above the shelf: a list that comes in must not push away what a thumb is just about to press. */}
      <View className="flex-row flex-wrap gap-x-5">
        <QuietButton testID="describe-part" label="Describe another" onPress={() => change(EMPTY_HARDWARE)} />
        <QuietButton label="Not now" onPress={onCancel} />
      </View>
      <ShelfList shelf={shelf} onTake={take} />
    </View>
  );
}

/** A part that was taken: which cam it turns, and where it stands. */
function ChosenPart({
  part,
  kept,
  onChange,
  onAdd,
}: {
  readonly part: Fitted;
  /** Why it is not on the shelf, or null. */
  readonly kept: string | null;
  readonly onChange: (part: Fitted | null) => void;
  readonly onAdd: (part: Fitted) => void;
}) {
  return (
    <View className="gap-3 border-l-4 border-brass pl-3">
      <Words look="label">{part.name}</Words>
      {kept ? <Words look="soft">{kept}</Words> : null}
      <WhichCam part={part} onChange={(changed) => onChange({ ...part, ...changed })} />
      <Stands hardware={part.hardware} at={part.at} onChange={(at) => onChange({ ...part, at })} />
      <View className="flex-row flex-wrap gap-x-5">
        <QuietButton testID="part-fit" label="Add it" onPress={() => onAdd(part)} />
        <QuietButton label="Not this one" onPress={() => onChange(null)} />
      </View>
    </View>
  );
}

/** The pieces of the shop's shelf, or why they are not here. */
function ShelfList({
  shelf,
  onTake,
}: {
  readonly shelf: ReturnType<typeof useShelf>['shelf'];
  readonly onTake: (piece: Piece) => void;
}) {
  if (shelf === 'asking') return <Words look="soft">Loading the shelf.</Words>;
  if (typeof shelf === 'string')
    return (
      <Words look="soft">The shelf cannot be reached just now. Describe the piece: it is kept with this build.</Words>
    );
  return (
    <View role="list">
      {shelf.map((piece) => (
        <View key={piece.id} role="listitem" className="border-b border-hairline">
          <Pressable
            role="button"
            testID="piece"
            onPress={() => onTake(piece)}
            className="min-h-[56px] justify-center py-1 active:opacity-70"
          >
            <Words look="label" tone="brass">
              {piece.name}
            </Words>
            <Words look="soft">{HARDWARE_KINDS[piece.hardware.kind].name}</Words>
          </Pressable>
        </View>
      ))}
    </View>
  );
}
