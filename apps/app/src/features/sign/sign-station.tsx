import { TextLink } from '@/ui/text-link';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { cutText } from '@yosoku/core/units/text';
import { AnsweredCheck } from '@/forms/answered-check';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useShortcuts } from '@/ui/use-shortcuts';
import { useAppSelector } from '@/store/store';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { Accepted } from '@/steps/accept';
import { dayWords } from '@/logbook/closed';
import { useStation } from '@/logbook/station';

/** Sign: what is looked at last, by whom and when; a signed build is closed. */
export function SignStation() {
  const { report, write } = useStation();
  const { sign, build } = report;
  const router = useRouter();
  const account = useAppSelector((state) => state.session.account);
  const { draft, change, done } = useDraft<'name' | 'note'>(`${build.id}/sign`);
  const { name = account?.builderName ?? '', note = '' } = draft;
  const [asked, setAsked] = useState(false);
  const due = sign.checks.filter(({ state }) => state === 'due').length;
  const signIt = (): void => {
    if (name.trim() === '' || due > 0) {
      setAsked(true);
      return;
    }
    write('build.signed', {
      after: sign.reopened?.entry ?? null,
      name: cutText(name.trim(), 80),
      ...(note.trim() === '' ? {} : { note: cutText(note.trim(), 400) }),
    });
    done();
  };
  useShortcuts({ s: () => router.replace(placeHref(build.id, 'sheet')) });
  return (
    <StationBody
      footer={
        <PrimaryButton
          testID="sign"
          label={due === 0 ? 'Sign and close it' : `Sign: ${due} still to be looked at`}
          onPress={signIt}
        />
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1} testID="sentence">
          {titleOf(sign)}
        </Words>
        {sign.signed?.note && sign.closed ? <Words>{sign.signed.note}</Words> : null}
        {sign.open.length > 0 ? (
          <View className="gap-2" testID="open-points">
            {sign.open.map((each) => (
              <Notice key={each} kind="warning" message={each} />
            ))}
          </View>
        ) : null}
        <Accepted />
        {asked && due > 0 ? (
          <Words role="alert" tone="danger" testID="sign-trouble">
            Say of each check that it is done, or why it is skipped. Then sign.
          </Words>
        ) : null}
        <LastChecks />
        <Baselines />
        <TextLink href={placeHref(build.id, 'sheet')} replace testID="to-sheet" className="self-start py-2">
          The sheet: print or export
        </TextLink>
        {sign.closed ? null : (
          <View className="gap-3">
            <TextField
              testID="sign-name"
              label="Name"
              value={name}
              onChange={(text) => change({ name: text })}
              error={asked && name.trim() === '' ? 'Who signs?' : undefined}
            />
            <TextField
              testID="sign-note"
              label="A note for the sheet"
              hint="May stay empty."
              value={note}
              onChange={(text) => change({ note: text })}
            />
          </View>
        )}
        <Words look="soft">
          Torque, locking and clearances come from the engine maker’s manual, which has the last word. A signed build
          takes no more entries until it is reopened with a reason.
        </Words>
      </View>
    </StationBody>
  );
}

function titleOf({ closed, signed, reopened }: Report['sign']): string {
  if (closed && signed) return `Signed by ${signed.name} on ${dayWords(signed.at)}`;
  return reopened ? `Reopened: ${reopened.reason}` : 'Before it runs';
}

/** What is looked at last, each done or skipped with a reason. */
function LastChecks() {
  const { report, write } = useStation();
  const { sign, build } = report;
  return (
    <View role="list">
      {sign.checks.map((each) => (
        <AnsweredCheck
          key={each.check}
          {...each}
          place={`${build.id}/skip-sign/${each.check}`}
          testIDs={{
            line: `sign-${each.check}`,
            reason: `sign-reason-${each.check}`,
            skip: `sign-skip-${each.check}`,
            done: `sign-done-${each.check}`,
          }}
          closed={sign.closed}
          onAnswer={(result, reason) =>
            write('sign.checked', {
              replaces: each.entry,
              check: each.check,
              result,
              ...(reason ? { reason } : {}),
            })
          }
        />
      ))}
    </View>
  );
}

/** The lifts that a later check is compared with. */
function Baselines() {
  const { baselines } = useStation().report.sign;
  if (baselines.length === 0)
    return <Words look="soft">No lift was measured: a later check has nothing to be compared with.</Words>;
  return (
    <View className="gap-1" testID="baselines">
      <Words look="heading" level={2}>
        Kept as its baseline
      </Words>
      {baselines.map(({ words }) => (
        <Words key={words}>{words}</Words>
      ))}
      <Words look="soft">A later check is compared with these: a lobe that lifts less is worn.</Words>
    </View>
  );
}
