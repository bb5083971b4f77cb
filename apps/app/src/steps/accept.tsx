import { useState } from 'react';
import { View } from 'react-native';
import { keyOfAccepted, lobesKey } from '@yosoku/core/findings/accepted';
import { lobesThatDiffer } from '@yosoku/core/findings/derive-lobes';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { cutText } from '@yosoku/core/units/text';
import { useStation } from '@/logbook/station';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

/** What is to be accepted, and the sentence that stands before the builder. */
export interface Acceptable {
  readonly of: BodyOf<'verdict.accepted'>['of'];
  readonly said: string;
}

const LONGEST_REASON = 200;
const LONGEST_SAID = 600;

/** Where the cams sit; null while nobody knows, and while something in the readings is most likely wrong: there is nothing yet to know of. */
export function acceptablePlace({ trials, verdict }: Report): Acceptable | null {
  const cams = (trials.at(-1)?.cams ?? []).flatMap(({ cam, bank, verdict: { delta } }) =>
    delta === null ? [] : [{ cam, bank, delta }],
  );
  const { kind, headline } = verdict;
  if (cams.length === 0 || kind === 'leave' || kind === 'waiting' || kind === 'do-not-move') return null;
  return { of: { what: 'place', verdict: kind, cams }, said: headline };
}

/** Leave it as it is, knowingly: with a reason, that then stands in place of the open point. */
export function Accept({ accept, onDone }: { readonly accept: Acceptable; readonly onDone: () => void }) {
  const { report, write } = useStation();
  const view = keyOfAccepted(accept.of);
  const { draft, change, done } = useDraft<'text'>(`${report.build.id}/accept/${view ?? 'place'}`);
  const { text: reason = '' } = draft;
  const [asked, setAsked] = useState(false);
  const keep = (): void => {
    const why = cutText(reason.trim(), LONGEST_REASON);
    if (why === '') {
      setAsked(true);
      return;
    }
    write('verdict.accepted', {
      replaces: report.accepted.find((each) => each.view === view)?.entry ?? null,
      trial: report.read.trial ?? '',
      of: accept.of,
      said: cutText(accept.said, LONGEST_SAID),
      reason: why,
    });
    done();
    onDone();
  };
  return (
    <View className="gap-3 border-t border-hairline pt-3">
      <View className="gap-3 px-4 wide:px-0">
        <Words>{accept.said}</Words>
        <TextField
          testID="accept-reason"
          label="Why it is left as it is"
          hint="Like “mild street cam, plain timing set”. It stands on the sheet and under the signature; the figures stay as they are."
          error={
            asked && reason.trim() === ''
              ? 'Give the reason: who reads the sheet years later will ask for it.'
              : undefined
          }
          value={reason}
          onChange={(text) => change({ text })}
          onSubmitEditing={keep}
          autoFocus
        />
        <View className="items-start">
          <QuietButton testID="accept-not" label="Not yet" onPress={onDone} />
        </View>
      </View>
      <PrimaryButton testID="accept" label="Leave it as it is" onPress={keep} />
    </View>
  );
}

/** What was left as it is, each to be taken back. */
export function Accepted() {
  const { report, write } = useStation();
  return report.accepted.map(({ entry, view, words }) => (
    <View
      key={entry}
      testID={view === null ? 'accepted' : `accepted-${view}`}
      className="items-start border-l-4 border-brass pl-3"
    >
      {view === null ? null : <Words look="soft">{titleOf(report, view)}</Words>}
      <Words>{words}</Words>
      {report.sign.closed ? null : (
        <QuietButton
          testID="take-back"
          label="Take it back"
          onPress={() => write('entry.voided', { voids: entry, reason: 'Taken back.' })}
        />
      )}
    </View>
  ));
}

function titleOf({ trials }: Report, key: string): string {
  const { views = [], everyLobe = [] } = trials.at(-1) ?? {};
  const table = everyLobe.find((each) => lobesKey(each) === key);
  return table ? lobesTitle(table) : (views.find((view) => view.key === key)?.title ?? '');
}

const lobesTitle = ({ valve, at }: Lobes): string =>
  at === 'lobe' ? `Every ${valve} lobe` : `Every lift at the ${valve} valve`;

/** Figures that are not the card’s, lobes that are not like the others, and that nobody has accepted yet: each to be accepted. */
export function NotTheCards({ onAccept }: { readonly onAccept: (accept: Acceptable) => void }) {
  const { trials, accepted } = useStation().report;
  const { views = [], everyLobe = [] } = trials.at(-1) ?? {};
  const open: readonly { readonly key: string; readonly title: string; readonly accept: Acceptable }[] = [
    ...views
      .filter(({ differs }) => differs)
      .map(({ key, title, shows, value, remark }) => ({
        key,
        title,
        accept: {
          of: { what: 'figure' as const, view: key, value },
          said: `${title}: ${shows}. ${remark ?? ''}`.trim(),
        },
      })),
    ...everyLobe
      .filter(({ differs }) => differs)
      .map((table) => ({ key: lobesKey(table), title: lobesTitle(table), accept: acceptLobes(table) })),
  ];
  return open
    .filter(({ key }) => !accepted.some(({ view, stands }) => view === key && stands))
    .map(({ key, title, accept }) => (
      <View key={key} className="items-start">
        <QuietButton testID={`accept-${key}`} label={`${title}: accept it as it is`} onPress={() => onAccept(accept)} />
      </View>
    ));
}

type Lobes = Report['trials'][number]['everyLobe'][number];

function acceptLobes(table: Lobes): Acceptable {
  const { valve, at, uneven, words } = table;
  const differ = lobesThatDiffer(table).map(({ cylinder, figure, apart }) => ({ cylinder, figure, apart }));
  return { of: { what: 'lobes', valve, at, uneven, differ }, said: words.join(' ') };
}
