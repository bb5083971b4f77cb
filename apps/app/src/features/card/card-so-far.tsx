import { View } from 'react-native';
import type { CompletedCard } from '@yosoku/core/cam/complete-card';
import type { Report } from '@yosoku/core/report/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import type { LengthUnit } from '@yosoku/core/units/length';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

/** The lobes as the card describes them, drawn while it is typed. */
export function CardPicture(props: {
  readonly card: CompletedCard;
  readonly measured: Report['trials'][number]['lobes'] | undefined;
  readonly units: LengthUnit;
  readonly width: number;
}) {
  const { card, measured, units, width } = props;
  const known = [card.intake.curve, card.exhaust.curve].some((lobe) => lobe !== null);
  return (
    <CycleRibbon
      testID="card-ribbon"
      card={{ intake: placed(card, 'intake'), exhaust: placed(card, 'exhaust') }}
      {...(measured ? { measured } : {})}
      units={units}
      width={width}
      description={`Cycle ribbon of 720 crank degrees. ${known ? 'The lobes of the card are drawn on it.' : 'The card gives no lift yet.'}`}
    />
  );
}

/** A lobe whose place nobody knows is not drawn as if it stood at TDC. */
const placed = (card: CompletedCard, valve: 'intake' | 'exhaust') => (card[valve].placed ? card[valve].curve : null);

/** Figures of the card that cannot all be right. */
export function Contradictions({ of }: { readonly of: CompletedCard['contradictions'] }) {
  return of.map(({ message, remedy }) => (
    <Notice
      key={message}
      kind="warning"
      testID="contradiction"
      message={message}
      remedy={`${remedy} Kept as typed; nothing is worked out from these figures until they agree.`}
    />
  ));
}

/** What follows from the card, and from what. */
export function WhatFollows({ card }: { readonly card: CompletedCard }) {
  const derived = card.figures.filter(({ from }) => from !== null);
  if (derived.length + card.overlaps.length === 0) return null;
  return (
    <View className="gap-1" testID="what-follows">
      <Words look="heading" level={2}>
        What follows from it
      </Words>
      {derived.map(({ key, label, shows, from }) => (
        <Line key={key} label={label} shows={shows} from={from ?? ''} />
      ))}
      {card.overlaps.map(({ label, crank, from }) => (
        <Line
          key={label}
          label={`Overlap ${label}`}
          shows={`${computedDegrees(crank)} crank`}
          from={`${from}; ${computedDegrees(crank / 2)} in cam degrees`}
        />
      ))}
    </View>
  );
}

function Line({ label, shows, from }: { readonly label: string; readonly shows: string; readonly from: string }) {
  return (
    <View className="border-b border-hairline py-1">
      <View className="flex-row gap-3">
        <Words className="shrink grow">{label}</Words>
        <Words look="figure">{shows}</Words>
      </View>
      <Words look="soft">{from}</Words>
    </View>
  );
}
