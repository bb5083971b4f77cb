import { UndoButton } from '@/ui/undo-button';
import { TextLink } from '@/ui/text-link';
import { type Href, useRouter } from 'expo-router';
import { type ReactElement, useState } from 'react';
import { View } from 'react-native';
import type { Report, Station } from '@yosoku/core/report/report';
import { whatItDoes } from '@yosoku/core/report/what-it-does';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { StationBody } from '@/shell/station-body';
import { PLACE_NAMES, placeHref } from '@/shell/station-line';
import { useStation } from '@/logbook/station';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { ClosingCheck } from '@/steps/closing-check';
import { DrawnCheck } from './drawn-check';
import { Evidence } from './evidence';
import { History } from './history';
import { Accept, Accepted, type Acceptable, NotTheCards, acceptablePlace } from '@/steps/accept';
import { NextTrial } from '@/steps/next-trial';

/** How often good readings scatter as much as these; from one time in twenty on that is nothing out of the ordinary. */
const scatterWords = (chance: number): string =>
  chance >= 0.05
    ? `Normal scatter: good readings differ this much or more ${percent(chance)} of the time.`
    : `Good readings differ this much or more only ${percent(chance)} of the time.`;

/** The stations whose work a verdict needs, in their order. */
const BEFORE_VERDICT = ['zero', 'card', 'read'] as const;

const isDone = ({ stations }: Report, name: Station): boolean =>
  stations.some(({ station, state }) => station === name && state === 'done');

/** The station whose work is missing for a verdict. What is most likely wrong on the card is not found by measuring again. */
function lackingFor(report: Report): (typeof BEFORE_VERDICT)[number] | undefined {
  const missing = BEFORE_VERDICT.find((each) => !isDone(report, each));
  return missing ?? (report.trials.at(-1)?.faults[0]?.fault === 'card-figure' ? 'card' : undefined);
}

/** Decide: how far and which way, in one sentence, with what it rests on. */
export function DecideStation() {
  const { report, undo } = useStation();
  const { verdict, trials, build } = report;
  const router = useRouter();
  const [why, setWhy] = useState(false);
  const [moving, setMoving] = useState(false);
  const [closing, setClosing] = useState(false);
  const [accepting, setAccepting] = useState<Acceptable | null>(null);
  const place = acceptablePlace(report);
  const stays = isDone(report, 'decide');
  const trial = trials.at(-1);
  const lacking = lackingFor(report);
  const due = report.read.closing.state === 'due';
  const check = (): void => setClosing(due);
  const onward = verdict.kind === 'move' ? 'move' : (lacking ?? 'read');
  const goOn = (): void => router.replace(placeHref(build.id, stays ? 'clear' : onward));
  // Who leaves it as it is knowingly has his reasons.
  const isFirst = due && verdict.first.includes('closing-check') && (!stays || verdict.kind === 'leave');
  useShortcuts(
    closing || accepting
      ? {}
      : { Enter: isFirst ? check : goOn, n: goOn, u: () => undo?.(), w: () => setWhy(!why), c: check },
  );
  if (closing) return <ClosingCheck onDone={() => setClosing(false)} />;

  const footer = (): ReactElement => {
    if (accepting) return <Accept accept={accepting} onDone={() => setAccepting(null)} />;
    if (moving) return <NextTrial onDone={() => setMoving(false)} />;
    return (
      <WhatNext
        lacking={lacking}
        stays={stays}
        onCheck={due ? check : null}
        isCheckFirst={isFirst}
        onGo={goOn}
        onMoved={() => setMoving(true)}
        onAccept={place && (() => setAccepting(place))}
      />
    );
  };
  return (
    <StationBody footer={footer()}>
      <VerdictWords />
      {trial ? <Evidence trial={trial} /> : null}
      <View className="px-4 wide:px-0">
        <NotTheCards onAccept={setAccepting} />
        <View className="flex-row flex-wrap items-center justify-between gap-x-4 py-1">
          <QuietButton label={why ? 'Hide why' : 'Why?'} testID="why" onPress={() => setWhy(!why)} />
          <TextLink testID="what-if" href={placeHref(build.id, 'what-if')} replace className="px-2 py-3">
            What if it were moved?
          </TextLink>
          <UndoButton undo={undo} />
        </View>
        <WhatItDoes />
        {why ? <Why /> : null}
        <History />
      </View>
    </StationBody>
  );
}

/** The verdict, what to do, and what is to be known beside it. */
function VerdictWords() {
  const { verdict, read, card } = useStation().report;
  const wide = useWide();
  return (
    <View className="gap-3 px-4 wide:px-0 pb-4 pt-4">
      <Words
        look="title"
        level={1}
        testID="verdict"
        className={wide ? 'text-[36px] leading-[42px]' : 'text-[32px] leading-[37px]'}
      >
        {verdict.headline}
      </Words>
      <Words look="sentence" testID="action">
        {verdict.action}
      </Words>
      <Accepted />
      <Beside />
      {read.closing.state === 'same' ? (
        <Words look="soft" testID="closing-same" aria-live="polite">
          {read.closing.sentence}
        </Words>
      ) : null}
      {card.remark ? <Notice kind="warning" message={card.remark} /> : null}
      {verdict.kind === 'move' ? (
        <Words look="soft">
          Turn the engine over by hand, two full turns, after any move; stop at any resistance. A move changes the
          clearance between valves and pistons: check it before the engine runs, as the engine maker’s manual says.
        </Words>
      ) : null}
    </View>
  );
}

/** What the verdict leads to. */
function WhatNext({
  lacking,
  stays,
  onCheck,
  isCheckFirst,
  onGo,
  onMoved,
  onAccept,
}: {
  /** The station whose work is missing for a verdict. */
  readonly lacking: 'zero' | 'card' | 'read' | undefined;
  /** It is on its target, or left as it is. */
  readonly stays: boolean;
  /** The closing check, where it is due. */
  readonly onCheck: (() => void) | null;
  /** Does the verdict ask for it before anything else? */
  readonly isCheckFirst: boolean;
  readonly onGo: () => void;
  readonly onMoved: () => void;
  /** To leave it as it is; null where there is no place to accept. */
  readonly onAccept: (() => void) | null;
}) {
  const { verdict, build } = useStation().report;
  const accept = onAccept ? <QuietButton testID="leave-it" label="Leave it" onPress={onAccept} /> : null;
  if (stays)
    return (
      <OnTarget
        sheet={placeHref(build.id, 'sheet')}
        onMoved={onMoved}
        onGo={onGo}
        onCheck={onCheck}
        isCheckFirst={isCheckFirst}
      />
    );
  if (verdict.kind !== 'move')
    return (
      <View>
        <View className="items-start px-4 wide:px-0">{accept}</View>
        <PrimaryButton
          testID="next"
          label={lacking ? `Go to ${PLACE_NAMES[lacking]}` : 'Measure again'}
          onPress={onGo}
        />
      </View>
    );
  return (
    <View>
      <View className="flex-row flex-wrap items-center justify-between px-4 wide:px-0">
        {onCheck ? <QuietButton testID="plan-move" label="Plan the move" onPress={onGo} /> : null}
        {accept}
        <QuietButton testID="moved" label="Moved already" onPress={onMoved} />
      </View>
      {onCheck ? (
        <PrimaryButton testID="closing" label="Make the closing check" onPress={onCheck} />
      ) : (
        <PrimaryButton testID="plan-move" label="Plan the move" onPress={onGo} />
      )}
    </View>
  );
}

/** A cam against its target and the limit; of several cams with its name. */
const WHOSE = { single: 'The', intake: 'The intake’s', exhaust: 'The exhaust’s' } as const;

/** What the verdict rests on: each cam's uncertainty by where it comes from, and the check by drawing. */
function Why() {
  const { verdict, trials, build } = useStation().report;
  const trial = trials.at(-1);
  return (
    <View className="gap-2 pb-4">
      <Words look="soft" testID="why-text">
        {verdict.why}
      </Words>
      {trial?.cams.map(({ cam, bank, budget, chance, verdict: its }) => (
        <View key={`${cam} ${bank}`} className="gap-1">
          <Words look="soft">
            {`${WHOSE[cam]} uncertainty, by where it comes from (one standard deviation): ${budget
              .filter(({ standard }) => standard >= 0.005)
              .map(({ from, standard }) => `${from} ${computedDegrees(standard, 2)}`)
              .join(', ')}. ${scatterWords(chance)}`}
          </Words>
          {/* Another figure: what was drawn for the one before is forgotten. */}
          <DrawnCheck
            key={`${trial.id} ${its.delta} ${its.expanded}`}
            buildId={build.id}
            trial={trial.id}
            cam={cam === 'exhaust' ? 'exhaust' : 'intake'}
            bank={bank}
          />
        </View>
      ))}
    </View>
  );
}

/** What it does that the cam sits there and not on its target. */
function WhatItDoes() {
  const { report } = useStation();
  const [headline, ...rest] = whatItDoes(report);
  if (headline === undefined) return null;
  return (
    <More label="What that does here" testID="what-it-does">
      <View className="gap-1">
        {[headline, ...rest].map((words) => (
          <Words key={words} look="soft">
            {words}
          </Words>
        ))}
      </View>
    </More>
  );
}

/** What stands beside the verdict. */
function Beside() {
  const { verdict } = useStation().report;
  if (verdict.beside.length === 0) return null;
  return (
    <View testID="beside" className="gap-1">
      {verdict.beside.map((words) => (
        <Words key={words} look="body">
          {words}
        </Words>
      ))}
    </View>
  );
}

/** A chance in words that do not pretend: "37 %", "less than 1 %". */
const percent = (chance: number): string => (chance < 0.01 ? 'less than 1 %' : `${decimal(100 * chance, 0)} %`);

/** The cam sits where it shall: what a move has changed is looked at next. */
function OnTarget({
  sheet,
  onMoved,
  onGo,
  onCheck,
  isCheckFirst,
}: {
  readonly sheet: Href;
  readonly onMoved: () => void;
  readonly onGo: () => void;
  /** The closing check, where it is due. */
  readonly onCheck: (() => void) | null;
  readonly isCheckFirst: boolean;
}) {
  const onward = { testID: 'to-clear', label: 'On to Clear: valve to piston', onPress: onGo };
  const check = onCheck && { testID: 'closing', onPress: onCheck };
  return (
    <View>
      <View className="flex-row flex-wrap justify-between gap-x-4 border-t border-hairline px-4 wide:px-0 py-1">
        <TextLink href={sheet} className="px-2 py-3">
          The sheet
        </TextLink>
        {isCheckFirst ? <QuietButton {...onward} /> : check ? <QuietButton label="Closing check" {...check} /> : null}
        <QuietButton testID="moved-after-all" label="The cam was moved after all" onPress={onMoved} />
      </View>
      {isCheckFirst && check ? (
        <PrimaryButton label="Make the closing check" {...check} />
      ) : (
        <PrimaryButton {...onward} />
      )}
    </View>
  );
}
