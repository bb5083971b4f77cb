import { useStation } from '@/logbook/station';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type CompletedCard, completeCard } from '@yosoku/core/cam/complete-card';
import { centrelineRemark, targetCentreline } from '@yosoku/core/cam/target';
import { cardFromMeasured } from '@yosoku/core/report/card-from-measured';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { useAppSelector } from '@/store/store';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { useDraftForm } from '@/ui/use-draft-form';
import { Words } from '@/ui/words';
import { CardFields } from './card-fields';
import { CardsOfShop, Kin } from './cards-of-shop';
import { CardPicture, Contradictions, WhatFollows } from './card-so-far';
import { type TypedCard, cardSoFar, hasCard, readCard } from './read-card';
import { type CardField, type CardForm, cardForm, emptyCard, typedCard } from './typed-card';
import { TargetFields } from './target-fields';

/** Card: what the camshaft's card prints, and where the cam shall sit. The two are kept apart. */
export function CardStation() {
  const { report, write } = useStation();
  const { build, card, target, trials } = report;
  const router = useRouter();
  const width = useStationWidth();
  const rule = useAppSelector((state) => state.session.account?.readRule ?? null);
  const form = useDraftForm<CardForm>(
    `${build.id}/card`,
    card.entry || target.entry ? cardForm(report) : emptyCard(report, rule),
  );
  const [empty, setEmpty] = useState<string | null>(null);
  const values = form.watch();
  const sofar = completeCard(cardSoFar(values, build.units), build.units);
  const read = readCard(values, build.units);
  const measured = card.entry ? null : cardFromMeasured(trials.at(-1));

  const save = form.handleSubmit((typed) => {
    const whole = readCard(typed, build.units);
    if (!whole.ok) {
      setEmpty(whole.message);
      return;
    }
    setEmpty(null);
    if (hasCard(whole.card)) {
      write('card.entered', { replaces: card.entry, ...whole.card });
      for (const other of card.others)
        write('entry.voided', { voids: other, reason: 'Another card stood beside it, and was saved.' });
    }
    write('target.set', { replaces: target.entry, ...whole.target });
    form.done();
    router.replace(placeHref(build.id, report.zero.state === 'proved' ? 'read' : 'zero'));
  });
  const fill = (typed: Partial<CardForm>): void => {
    for (const [name, value] of Object.entries(typed)) form.setValue(name as CardField, value, { shouldDirty: true });
  };

  return (
    <StationBody
      footer={
        <View>
          <FirstContradiction of={sofar.contradictions} />
          <PrimaryButton testID="card-save" label="Save card and target" onPress={() => void save()} />
        </View>
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1}>
          What the card says
        </Words>
        <OtherCards />
        {measured ? <FromMeasured onWrite={() => fill(typedCard(measured, build.units))} /> : null}
        <CardPicture
          card={sofar}
          measured={trials.at(-1)?.lobes}
          units={build.units}
          width={Math.min(width - 32, 680)}
        />
        <Contradictions of={sofar.contradictions} />
        <CentrelineRemark of={sofar.intake.centreline} />
        <Kin like={build.like} />
        <CardFields
          form={form}
          units={build.units}
          offers={<CardsOfShop typed={values.name} onTake={(taken) => fill(typedCard(taken, build.units))} />}
        />
        <WhatFollows card={sofar} />
        <TargetFields form={form} units={build.units} twin={build.engine.cams === 'twin'} />
        {read.ok ? <Aim card={sofar} target={read.target} /> : null}
        {empty ? <Notice kind="danger" message={empty} testID="card-empty" /> : null}
      </View>
    </StationBody>
  );
}

/** What is said of a centreline that few cams have. */
function CentrelineRemark({ of: centreline }: { readonly of: number | null }) {
  const remark = centreline === null ? null : centrelineRemark(centreline);
  return remark ? <Notice kind="warning" message={remark} /> : null;
}

/** Where the intake shall sit, or why that cannot be said. */
function Aim({
  card,
  target: { target, limit },
}: {
  readonly card: CompletedCard;
  readonly target: TypedCard['target'];
}) {
  const aim = targetCentreline(card.intake.centreline, target);
  return (
    <Words look="sentence" testID="aim">
      {aim.ok
        ? `Aim: intake centreline ${wheelDegrees(aim.centreline)} ATDC, ±${wheelDegrees(limit)}.`
        : `${aim.problem.message} ${aim.problem.remedy}`}
    </Words>
  );
}

/** Beside the key what does not fit, for who has scrolled past it; it is said above to whom it is read. */
function FirstContradiction({ of: [first] }: { readonly of: CompletedCard['contradictions'] }) {
  if (!first) return null;
  return (
    <Words look="label" className="border-t border-warning px-4 py-2" aria-hidden>
      {first.message}
    </Words>
  );
}

/** Cards that were entered beside the one that holds, as by two devices. */
function OtherCards() {
  const { problems, card } = useStation().report;
  return problems
    .filter(({ entries }) => entries.some((each) => card.others.includes(each)))
    .map(({ message, remedy }) => (
      <Notice key={message} kind="warning" message={message} remedy={remedy} testID="other-cards" />
    ));
}

function FromMeasured({ onWrite }: { readonly onWrite: () => void }) {
  return (
    <View className="items-start border-l-4 border-brass pl-3">
      <Words>No card? Write it from what was measured of this cam; it then stands as its baseline.</Words>
      <QuietButton testID="card-from-measured" label="Write it from the measurements" onPress={onWrite} />
    </View>
  );
}
