import { useStation } from '@/logbook/station';
import { UndoButton } from '@/ui/undo-button';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { sayFigures } from '@yosoku/core/report/spoken';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { CamBalance } from '@/findings/cam-balance';
import { StationBody } from '@/shell/station-body';
import { type Place, placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { useShortcuts } from '@/ui/use-shortcuts';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { drafted } from '@/store/drafts-slice';
import { useAppDispatch } from '@/store/store';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { Accept, Accepted, type Acceptable, acceptablePlace } from '@/steps/accept';

/** Prove: did the move do what it should? Prediction beside measurement. */
export function ProveStation() {
  const { report, undo } = useStation();
  const { proof, build, trials, card, zero } = report;
  useSpoken(sayFigures(proof.sentence));
  const router = useRouter();
  const dispatch = useAppDispatch();
  const width = useStationWidth();
  const trial = trials.at(-1);
  const goes = nextOf(report);
  const onward = (): void => {
    const [first] = proof.next;
    if (goes.place === 'read' && first && trial)
      dispatch(
        drafted({
          place: `${build.id}/reading/${trial.id}`,
          draft: {
            method: first.method,
            valve: first.valve,
            ...(build.engine.secondBank === null ? {} : { bank: String(first.bank) }),
          },
        }),
      );
    router.replace(placeHref(build.id, goes.place));
  };
  const [accepting, setAccepting] = useState<Acceptable | null>(null);
  useShortcuts(accepting ? {} : { Enter: onward, n: onward, u: () => undo?.() });
  return (
    <StationBody footer={<WhatNext label={goes.label} onGo={onward} accepting={accepting} onAccept={setAccepting} />}>
      <View className="max-w-[720px] gap-3 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1} testID="sentence">
          {proof.sentence}
        </Words>
        <Accepted />
        {proof.gave ? (
          <Words look="sentence" testID="gave">
            {proof.gave}
          </Words>
        ) : null}
        {proof.state === 'due' && zero.state !== 'proved' ? (
          <Words look="soft">TDC is no longer valid. Readings taken on it do not count.</Words>
        ) : null}
      </View>
      {proof.state === 'nothing'
        ? null
        : trial?.cams.map((each) => (
            <View key={`${each.cam} ${each.bank}`} className="items-center">
              <CamBalance trial={trial} cam={each} width={width} />
            </View>
          ))}
      <View className="max-w-[720px] gap-4 px-4 wide:px-0 pb-8">
        {proof.rows.length > 0 ? <Comparison rows={proof.rows} /> : null}
        {trial && (trial.lobes.intake || trial.lobes.exhaust) && proof.state !== 'nothing' ? (
          <CycleRibbon
            card={card.lobes}
            measured={trial.lobes}
            units={build.units}
            width={Math.min(width - 32, 680)}
            description="Cycle ribbon: card and as measured after the move."
          />
        ) : null}
        <View className="items-start">
          <UndoButton undo={undo} />
        </View>
      </View>
    </StationBody>
  );
}

interface WhatNextProps {
  readonly label: string;
  readonly onGo: () => void;
  readonly accepting: Acceptable | null;
  readonly onAccept: (accept: Acceptable | null) => void;
}

/** On with the work; or, where it is not there yet, to be left so knowingly. */
function WhatNext({ label, onGo, accepting, onAccept }: WhatNextProps) {
  const { report } = useStation();
  const { state } = report.proof;
  const place = state === 'off' || state === 'doubt' ? acceptablePlace(report) : null;
  if (accepting) return <Accept accept={accepting} onDone={() => onAccept(null)} />;
  return (
    <View>
      {place ? (
        <View className="items-start px-4 wide:px-0">
          <QuietButton testID="leave-it" label="Leave it as it is" onPress={() => onAccept(place)} />
        </View>
      ) : null}
      <PrimaryButton testID="prove-next" label={label} onPress={onGo} />
    </View>
  );
}

/** Where the work goes on from here. */
function nextOf({ proof, zero }: Report): { readonly place: Place; readonly label: string } {
  switch (proof.state) {
    case 'due':
      return zero.state === 'proved' ? { place: 'read', label: 'Read it' } : { place: 'zero', label: 'Find TDC again' };
    case 'proved':
    case 'accepted':
      return { place: 'clear', label: 'On to Clear: valve to piston' };
    case 'off':
      return { place: 'move', label: 'Plan the next move' };
    case 'doubt':
    case 'nothing':
      return { place: 'decide', label: 'Look at the verdict' };
  }
}

function Comparison({ rows }: { readonly rows: Report['proof']['rows'] }) {
  return (
    <View role="table" aria-label="Predicted and measured" testID="comparison">
      <View role="row" className="flex-row gap-3 border-b border-line py-1">
        <Words role="columnheader" look="soft" className="grow basis-0">
          Predicted
        </Words>
        <Words role="columnheader" look="soft" className="grow basis-0">
          Measured
        </Words>
      </View>
      {rows.map(({ title, predicted, measured, off, agrees }) => (
        <View key={title} role="row" className="border-b border-hairline py-2">
          <Words role="rowheader" look="label">
            {title}
          </Words>
          <View className="flex-row gap-3">
            <Words role="cell" className="grow basis-0" tone="soft">
              {predicted}
            </Words>
            <Words role="cell" className="grow basis-0" tone={measured === null ? 'soft' : 'ink'}>
              {measured === null
                ? 'not read'
                : `${measured}${off === null ? '' : `; ${offWords(off)}`}${agrees === false ? ', more than chance' : ''}`}
            </Words>
          </View>
        </View>
      ))}
    </View>
  );
}

const offWords = (off: number): string =>
  Math.abs(off) < 0.05
    ? 'as predicted'
    : `${computedDegrees(Math.abs(off))} ${off > 0 ? 'earlier' : 'later'} than predicted`;
