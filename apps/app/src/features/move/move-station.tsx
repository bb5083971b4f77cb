import { UndoButton } from '@/ui/undo-button';
import { TextLink } from '@/ui/text-link';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { sayFigures } from '@yosoku/core/report/spoken';
import { signed } from '@yosoku/core/timing-set/kinds/kind';
import { cutText } from '@yosoku/core/units/text';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { DriveParts } from './drive-parts';
import { Instruction } from './instruction';
import { MoveDone } from './move-done';
import { NextTrial } from '@/steps/next-trial';
import { PhaserAngle } from './phaser-angle';
import { PlanList } from './plan-list';
import { TwoMarks } from './two-marks';
import { useStation } from '@/logbook/station';

type Plan = Report['move']['plans'][number];

/** What is being said to be done: the plan, another move, or a phaser that was set, by its part. */
type Done = string | null;
const PLAN = 'plan';
const OTHER = 'other';

/** Move: what to set where, how, and what should then be read. */
export function MoveStation() {
  const { report, undo } = useStation();
  const { move, drive, build } = report;
  useSpoken(sayFigures(move.sentence));
  const router = useRouter();
  const [chosen, setChosen] = useState(0);
  const [done, setDone] = useState<Done>(null);
  const plan = move.plans[chosen] ?? move.plans[0];
  const phasers = drive.parts.filter(({ kind }) => kind === 'phaser');
  const onward = (): void => {
    // A plan that brings a valve too near is never the thing to press.
    if (plan && plan.breaks.length > 0) router.replace(placeHref(build.id, 'clear'));
    else if (plan) setDone(PLAN);
    else if (move.state === 'unfitted' || move.state === 'short') setDone(OTHER);
    else router.replace(placeHref(build.id, move.state === 'stay' ? 'prove' : 'decide'));
  };
  useShortcuts({ Enter: onward, n: onward, u: () => undo?.() });
  return (
    <StationBody footer={<WhatIsPressed done={done} plan={plan} onDone={setDone} onNext={onward} />}>
      <View className="max-w-[720px] gap-4 px-4 wide:px-0 pb-6 pt-4">
        <Words look="title" level={1} testID="sentence">
          {move.sentence}
        </Words>
        {move.then ? (
          <Words look="sentence" testID="then">
            {move.then}
          </Words>
        ) : null}
        {plan?.clearanceUnknown ? (
          <Notice
            kind="warning"
            message="Valve-to-piston clearance is not known yet."
            remedy="A move changes it. Measure it at Clear, before or after; turn by hand and stop at any resistance."
          />
        ) : null}
        {move.plans.length > 0 ? <PlanList plans={move.plans} chosen={chosen} onChoose={setChosen} /> : null}
        {plan ? <Instruction plan={plan} /> : null}
        <DriveParts />
        {phasers.map((part) => (
          <View key={part.part} className="gap-1">
            <PhaserAngle part={part} />
            {part.angle && Math.abs(part.angle.correction) >= 0.05 ? (
              <View className="items-start">
                <QuietButton
                  testID={`phaser-set${part.cam === 'all' ? '' : `-${part.cam}`}`}
                  label="I have set it"
                  onPress={() => setDone(part.part)}
                />
              </View>
            ) : null}
          </View>
        ))}
        <MovesSoFar />
        <More label="Two marks that cannot both be met" testID="two-marks-more">
          <TwoMarks />
        </More>
        <View className="flex-row flex-wrap items-center justify-between gap-x-4">
          <TextLink href={placeHref(build.id, 'what-if')} replace className="py-3">
            What if it were moved?
          </TextLink>
          {done === null && plan ? (
            <QuietButton testID="moved-otherwise" label="I moved it otherwise" onPress={() => setDone(OTHER)} />
          ) : null}
          <UndoButton undo={undo} />
        </View>
      </View>
    </StationBody>
  );
}

/** What stays under the thumb: what comes next, or what is to be said of a move that was made. */
function WhatIsPressed({
  done,
  plan,
  onDone,
  onNext,
}: {
  readonly done: Done;
  readonly plan: Plan | undefined;
  readonly onDone: (what: Done) => void;
  readonly onNext: () => void;
}) {
  const { move, drive } = useStation().report;
  const close = (): void => onDone(null);
  if (done === PLAN && plan)
    return <MoveDone move={asMove(plan)} note={noteOf(plan)} wheelOff={plan.wheelOff} onCancel={close} />;
  if (done === OTHER) return <NextTrial onDone={close} />;
  const phaser = drive.parts.find(({ part }) => part === done);
  if (phaser?.angle) {
    const { setTo } = phaser.angle;
    return (
      <MoveDone
        move={{ parts: [{ part: phaser.part, to: { at: setTo } }], cams: [], predicted: [] }}
        note={`${phaser.name} set to ${signed(setTo)} in its own scale`}
        wheelOff={false}
        onCancel={close}
      />
    );
  }
  return (
    <View>
      {plan && plan.breaks.length > 0 ? (
        <View className="items-end px-4 wide:px-0">
          <QuietButton testID="set-all-the-same" label="I have set it anyway" onPress={() => onDone(PLAN)} />
        </View>
      ) : null}
      <PrimaryButton testID="move-next" label={buttonOf(move, plan)} onPress={onNext} />
    </View>
  );
}

/** Every move of this build, and what it gave. */
function MovesSoFar() {
  const { moves } = useStation().report;
  if (moves.every(({ words }) => words === null)) return null;
  return (
    <View className="gap-1" testID="moves">
      <Words look="heading" level={2}>
        Moves so far
      </Words>
      {moves.map(({ trial, parts, words }, at) => (
        <Words key={trial} look="soft">
          {`Move ${at + 1}: ${parts.map(({ name, from, to }) => `${name} from ${from} to ${to}`).join(', ') || 'not planned here'}. ${words ?? 'Not measured yet.'}`}
        </Words>
      ))}
    </View>
  );
}

function buttonOf({ state }: Report['move'], plan: Plan | undefined): string {
  if (plan) return plan.breaks.length > 0 ? 'Look at the clearance first' : 'I have set it so';
  if (state === 'stay') return 'On to Prove';
  return state === 'waiting' ? 'Look at the verdict' : 'I have moved it by other means';
}

/** What is written down of a plan that was carried out. */
const asMove = ({ parts, cams, predicted }: Plan) => ({
  parts: parts.map(({ part, setting }) => ({ part, to: setting })),
  cams: cams.map(({ cam, bank, by, standard }) => ({ cam, bank, by, standard })),
  predicted: [...predicted],
});

const LONGEST_NOTE = 200;
const noteOf = ({ parts }: Plan): string =>
  cutText(parts.map(({ name, put }) => `${name} ${put}`).join(', '), LONGEST_NOTE);
