import { useState } from 'react';
import { View } from 'react-native';
import { type AtHand, allowsMethod, proposeZero } from '@yosoku/core/tdc/propose-zero';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { ZERO_METHODS, ZERO_METHOD_NAMES, type ZeroMethodName, goesOnward } from '@yosoku/core/tdc/zero-methods';
import { StationBody } from '@/shell/station-body';
import { useShortcuts } from '@/ui/use-shortcuts';
import { MethodSketch } from '@/pictures/method-sketch';
import { useAppSelector } from '@/store/store';
import { placeHref } from '@/shell/station-line';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';
import { YesNo } from '@/ui/yes-no';
import { useStation } from '@/logbook/station';
import { BeforeMethod, usePin, useRim } from './before-method';
import { HEAD, useAtHand } from './use-at-hand';

interface ChooseMethodProps {
  readonly onBegun: () => void;
}

/** What is there, and the method that follows from it. One tap takes the proposal; any other is two. */
export function ChooseMethod({ onBegun }: ChooseMethodProps) {
  const { report, write, undo } = useStation();
  const { build, prepare, zero } = report;
  const rule = useZeroRule(build.practice);
  const stated = prepare.asItStands;
  const { at, setAt, other, setOther, done } = useAtHand(build.id, stated);
  const [asked, setAsked] = useState(false);
  const rim = useRim(build.id, build.units);
  const proposal = proposeZero(at, rule);
  const method = other !== null && allowsMethod(other, at) ? other : (proposal?.method ?? null);
  const needsRim = method !== null && !at.wheel;
  const pin = usePin(build.id);
  const needsPin = method !== null && ZERO_METHODS[method].bringsTolerance === true;

  const begin = (): void => {
    if (method === null || (needsRim && rim.ring === null) || (needsPin && pin.trouble !== null)) {
      setAsked(true);
      return;
    }
    if (!stated || Object.entries(at).some(([name, value]) => stated[name as keyof AtHand] !== value))
      write('engine.as-it-stands', asItStands(at, stated));
    write('zero.begun', {
      after: zero.id,
      method,
      cylinder: 1,
      ...(needsRim && rim.ring && { ring: rim.ring }),
      ...(needsPin && { tolerance: pin.value }),
    });
    done();
    onBegun();
  };
  useShortcuts({ Enter: begin, n: begin, u: () => undo?.() });

  return (
    <StationBody
      footer={
        <PrimaryButton
          testID="zero-begin"
          label={method ? 'Begin with it' : 'No method fits'}
          disabled={method === null}
          onPress={begin}
        />
      }
    >
      <View className="max-w-[640px] gap-4 px-4 wide:px-0 pb-4 pt-4">
        <Words look="title" level={1} testID="sentence">
          {zero.state === 'void' ? zero.sentence : 'Find true top dead centre'}
        </Words>
        <AtHandFields at={at} onChange={setAt} />
        {method ? (
          <>
            <ThisMethod method={method} proposal={proposal} />
            <BeforeMethod method={method} pin={needsPin ? pin : null} rim={needsRim ? rim : null} asked={asked} />
          </>
        ) : (
          <Notice
            kind="warning"
            message="Nothing here can find TDC."
            remedy="With the head on, no plug hole in line and no indicator there is nothing to measure with. Say what else you have, or take the head off."
          />
        )}
        <OtherMethods method={method} at={at} onChoose={setOther} />
        <TextLink href={placeHref(report.build.id, 'print')} testID="to-print" className="self-start py-2">
          Print a degree wheel or a rim tape
        </TextLink>
      </View>
    </StationBody>
  );
}

/** The rule of the shop. An engine to practise on has a stop and no more, whatever that asks for. */
function useZeroRule(practice: boolean): ZeroMethodName | null {
  const ofShop = useAppSelector((state) => state.session.account?.zeroRule ?? null);
  return practice ? null : ofShop;
}

interface ThisMethodProps {
  readonly method: ZeroMethodName;
  readonly proposal: ReturnType<typeof proposeZero>;
}

/** The method that is about to be begun: why, and what it takes. */
function ThisMethod({ method, proposal }: ThisMethodProps) {
  const { name, why, prepare } = ZERO_METHODS[method];
  return (
    <View className="flex-row gap-4 border-l-4 border-brass pl-3">
      <View className="shrink grow gap-1">
        <Words look="heading" level={2} testID="method">
          {name}
        </Words>
        <Words look="body">{method === proposal?.method ? proposal.why : why}</Words>
        <Words look="body">{prepare}</Words>
      </View>
      <MethodSketch method={method} size={108} />
    </View>
  );
}

/** What is there now, beside what was said of the engine before. */
function asItStands(
  { oneWay, ...there }: AtHand,
  stated: Report['prepare']['asItStands'],
): BodyOf<'engine.as-it-stands'> {
  const { entry = null, lifter = 'solid', drive = 'chain', springs, camDrives } = stated ?? {};
  return {
    replaces: entry,
    ...there,
    ...(oneWay ? { oneWay } : {}),
    lifter,
    drive,
    ...(springs ? { springs } : {}),
    ...(camDrives ? { camDrives } : {}),
  };
}

/** What is there to work with. */
function AtHandFields({ at, onChange }: { readonly at: AtHand; readonly onChange: (at: AtHand) => void }) {
  return (
    <View className="flex-row flex-wrap gap-x-4 gap-y-3">
      <View className="grow basis-[150px]">
        <Choice
          testID="at-head"
          label="The head is"
          options={HEAD}
          value={at.head}
          onChange={(head) => onChange({ ...at, head })}
        />
      </View>
      {at.head === 'on' ? (
        <YesNo
          testID="at-plugHole"
          label="Plug hole in line with the bore?"
          value={at.plugHole}
          onChange={(plugHole) => onChange({ ...at, plugHole })}
        />
      ) : null}
      <YesNo
        testID="at-wheel"
        label="A degree wheel?"
        value={at.wheel}
        onChange={(wheel) => onChange({ ...at, wheel })}
      />
      <YesNo
        testID="at-indicator"
        label="An indicator?"
        value={at.indicator}
        onChange={(indicator) => onChange({ ...at, indicator })}
      />
      <YesNo
        testID="at-turnsBack"
        label="May it be turned back?"
        value={!at.oneWay}
        onChange={(back) => onChange({ ...at, oneWay: !back })}
      />
    </View>
  );
}

/** The methods beside the one that is shown: those that the engine allows can be taken, of the rest it says what they lack. */
function OtherMethods({
  method,
  at,
  onChoose,
}: {
  readonly method: ZeroMethodName | null;
  readonly at: AtHand;
  readonly onChoose: (name: ZeroMethodName) => void;
}) {
  return (
    <More label="Another method" testID="other-methods">
      <View className="gap-3">
        {ZERO_METHOD_NAMES.filter((name) => name !== method).map((name) => (
          <View key={name} className="gap-0 border-b border-hairline pb-2">
            {allowsMethod(name, at) ? (
              <View className="items-start">
                <QuietButton testID={`method-${name}`} label={ZERO_METHODS[name].name} onPress={() => onChoose(name)} />
              </View>
            ) : (
              <Words look="label" tone="soft" className="px-2 py-2">
                {`${ZERO_METHODS[name].name}: ${lacking(name, at)}`}
              </Words>
            )}
            <Words look="soft" className="px-2">
              {ZERO_METHODS[name].why}
            </Words>
          </View>
        ))}
      </View>
    </More>
  );
}

/** What the engine lacks for a method, in words. */
function lacking(name: ZeroMethodName, at: AtHand): string {
  const { needs } = ZERO_METHODS[name];
  if (needs.head !== 'any' && needs.head !== at.head)
    return needs.head === 'off' ? 'needs the head off' : 'for a head that is on';
  if (needs.indicator && !at.indicator) return 'needs an indicator';
  if (needs.readBy === 'wheel' && !at.wheel) return 'needs a degree wheel';
  if (needs.readBy === 'rim' && at.wheel) return 'for engines without a wheel';
  if (at.oneWay && !goesOnward(name)) return 'has to be turned back';
  return 'needs a plug hole in line';
}
