import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { AnsweredCheck } from '@/forms/answered-check';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { YesNo } from '@/ui/yes-no';
import { EndPlay } from './end-play';
import { useStation } from '@/logbook/station';

type Stated = Omit<BodyOf<'engine.as-it-stands'>, 'replaces'>;

const UNSAID: Stated = { head: 'off', plugHole: true, wheel: true, indicator: true, lifter: 'solid', drive: 'chain' };
const SPRINGS = [
  { value: 'checking', label: 'Light springs' },
  { value: 'valve', label: 'Valve springs' },
  { value: 'none', label: 'Nothing' },
] as const;
const LIFTERS = [
  { value: 'solid', label: 'Solid' },
  { value: 'hydraulic', label: 'Hydraulic' },
  { value: 'roller', label: 'Roller' },
  { value: 'bucket', label: 'Bucket' },
  { value: 'none', label: 'None in' },
] as const;
const DRIVES = [
  { value: 'chain', label: 'Chain' },
  { value: 'belt', label: 'Belt' },
  { value: 'gear', label: 'Gears' },
  { value: 'none', label: 'Bare crank' },
] as const;
const CAM_DRIVES = [
  { value: 'distributor', label: 'Distributor' },
  { value: 'sensor', label: 'Cam sensor' },
  { value: 'neither', label: 'Neither' },
] as const;
const HEADS = [
  { value: 'off', label: 'Head off' },
  { value: 'on', label: 'Head on' },
] as const;
/** Prepare: how the engine stands, and what is looked at before anything is measured. */
export function PrepareStation() {
  const { report, write } = useStation();
  const { prepare, build } = report;
  const router = useRouter();
  const stated = saidOf(prepare.asItStands ?? UNSAID);
  const due = prepare.checks.filter((each) => each.state === 'due').length;
  const onward = (): void => router.replace(placeHref(build.id, 'zero'));
  useShortcuts({ n: onward });
  const change = (part: Partial<Stated>): void => {
    write('engine.as-it-stands', { replaces: prepare.asItStands?.entry ?? null, ...saidOf({ ...stated, ...part }) });
  };

  return (
    <StationBody
      footer={
        prepare.asItStands ? (
          <PrimaryButton
            testID="next"
            label={due === 0 ? 'On to Zero' : `On to Zero, ${due} still to be looked at`}
            onPress={onward}
          />
        ) : (
          <PrimaryButton testID="stands" label="Confirm, and show the checks" onPress={() => change({})} />
        )
      }
    >
      <View className="max-w-[640px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1} testID="sentence">
          {prepare.asItStands ? 'Before anything is measured' : 'Say how the engine stands'}
        </Words>
        <StandsFields stated={stated} onChange={change} />
        {prepare.asItStands ? (
          <View role="list">
            {prepare.checks.map((each) => (
              <Check key={each.check} check={each} />
            ))}
          </View>
        ) : null}
        <Words look="soft">
          Torque, locking compound and clearances come from the engine maker’s manual, which has the last word. An
          engine for the road answers to local emission rules.
        </Words>
      </View>
    </StationBody>
  );
}

type Optional = 'springs' | 'camDrives' | 'oneWay';
/** As the Report has it, or as it is being said: what nobody has said is null, false or missing. */
type Saying = Omit<Stated, Optional> & { readonly [Part in Optional]?: Stated[Part] | null | false };

/** What is said of the engine, what nobody has said left out. */
const saidOf = ({ head, plugHole, wheel, indicator, lifter, drive, springs, camDrives, oneWay }: Saying): Stated => ({
  head,
  plugHole,
  wheel,
  indicator,
  lifter,
  drive,
  ...(springs ? { springs } : {}),
  ...(camDrives ? { camDrives } : {}),
  ...(oneWay ? { oneWay } : {}),
});

/** How the engine stands: what follows from it are the checks. */
function StandsFields({
  stated,
  onChange,
}: {
  readonly stated: Stated;
  readonly onChange: (part: Partial<Stated>) => void;
}) {
  return (
    <View className="gap-3">
      <Choice
        testID="stands-head"
        label="The head"
        options={HEADS}
        value={stated.head}
        onChange={(head) => onChange({ head })}
      />
      <Choice
        testID="stands-lifter"
        label="Lifter that is measured on"
        options={LIFTERS}
        value={stated.lifter}
        onChange={(lifter) => onChange({ lifter })}
      />
      {stated.lifter === 'none' ? null : (
        <Choice
          testID="stands-springs"
          label="What pushes it down on the lobe"
          options={SPRINGS}
          value={stated.springs}
          onChange={(pushes) => onChange({ springs: pushes })}
        />
      )}
      <Choice
        testID="stands-drive"
        label="Cam drive"
        options={DRIVES}
        value={stated.drive}
        onChange={(drive) => onChange({ drive })}
      />
      {stated.drive === 'none' ? null : (
        <Choice
          testID="stands-camDrives"
          label="What the cam drives, to be clocked after a move"
          options={CAM_DRIVES}
          value={stated.camDrives}
          onChange={(camDrives) => onChange({ camDrives })}
        />
      )}
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        <YesNo label="A degree wheel?" value={stated.wheel} onChange={(wheel) => onChange({ wheel })} />
        <YesNo label="An indicator?" value={stated.indicator} onChange={(indicator) => onChange({ indicator })} />
        <YesNo
          testID="stands-turnsBack"
          label="May it be turned back?"
          value={!stated.oneWay}
          onChange={(back) => onChange({ oneWay: back ? undefined : true })}
        />
        {stated.head === 'on' ? (
          <YesNo
            label="Plug hole in line with the bore?"
            value={stated.plugHole}
            onChange={(plugHole) => onChange({ plugHole })}
          />
        ) : null}
      </View>
    </View>
  );
}

type CheckFinding = Report['prepare']['checks'][number];

function Check({ check }: { readonly check: CheckFinding }) {
  const { report, write } = useStation();
  return (
    <AnsweredCheck
      check={check.check}
      title={check.title}
      why={check.why}
      state={check.state}
      reason={check.reason}
      place={`${report.build.id}/skip/${check.check}`}
      testIDs={{
        line: `check-${check.check}`,
        reason: `reason-${check.check}`,
        skip: `skip-${check.check}`,
        done: `done-${check.check}`,
      }}
      onAnswer={(result, reason) =>
        write('prepare.checked', { replaces: check.entry, check: check.check, result, ...(reason ? { reason } : {}) })
      }
    >
      {check.caution && check.state !== 'done' ? <Notice kind="warning" message={check.caution} /> : null}
      {check.check === 'end-play' ? <EndPlay /> : null}
    </AnsweredCheck>
  );
}
