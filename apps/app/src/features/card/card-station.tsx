import { useStation } from '@/logbook/station';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { completeCard } from '@yosoku/core/cam/complete-card';
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
import {
  type CardField,
  type CardForm,
  cardForm,
  cardSoFar,
  emptyCard,
  hasCard,
  readCard,
  typedCard,
} from './card-form';
import { CardPicture, Contradictions, WhatFollows } from './card-so-far';
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
  const aim = read.ok ? targetCentreline(sofar.intake.centreline, read.target.target) : null;
  const remark = sofar.intake.centreline === null ? null : centrelineRemark(sofar.intake.centreline);
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
  const writeMeasured = (): void => {
    if (measured) fill(typedCard(measured, build.units));
  };

  return (
    <StationBody
      footer={
        <View>
          {sofar.contradictions[0] ? (
            <Words look="label" className="border-t border-warning px-4 py-2" aria-hidden>
              {sofar.contradictions[0].message}
            </Words>
          ) : null}
          <PrimaryButton testID="card-save" label="Save card and target" onPress={() => void save()} />
        </View>
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1}>
          What the card says
        </Words>
        {report.problems
          .filter(({ entries }) => entries.some((each) => card.others.includes(each)))
          .map(({ message, remedy }) => (
            <Notice key={message} kind="warning" message={message} remedy={remedy} testID="other-cards" />
          ))}
        {measured ? (
          <View className="items-start border-l-4 border-brass pl-3">
            <Words>No card? Write it from what was measured of this cam; it then stands as its baseline.</Words>
            <QuietButton testID="card-from-measured" label="Write it from the measurements" onPress={writeMeasured} />
          </View>
        ) : null}
        <CardPicture
          card={sofar}
          measured={trials.at(-1)?.lobes}
          units={build.units}
          width={Math.min(width - 32, 680)}
        />
        <Contradictions of={sofar.contradictions} />
        {remark ? <Notice kind="warning" message={remark} /> : null}
        <Kin like={build.like} />
        <CardFields
          form={form}
          units={build.units}
          offers={<CardsOfShop typed={values.name} onTake={(taken) => fill(typedCard(taken, build.units))} />}
        />
        <WhatFollows card={sofar} />
        <TargetFields form={form} units={build.units} twin={build.engine.cams === 'twin'} />
        {aim ? (
          <Words look="sentence" testID="aim">
            {aim.ok
              ? `Aim: intake centreline ${wheelDegrees(aim.centreline)} ATDC, ±${wheelDegrees(read.ok ? read.target.limit : 0)}.`
              : `${aim.problem.message} ${aim.problem.remedy}`}
          </Words>
        ) : null}
        {empty ? <Notice kind="danger" message={empty} testID="card-empty" /> : null}
      </View>
    </StationBody>
  );
}
