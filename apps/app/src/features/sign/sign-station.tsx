import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/logbook/report';
import { StationBody } from '@/features/builds/station-body';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import type { Write } from '@/features/builds/use-logbook';
import { useShortcuts } from '@/features/entry/use-shortcuts';
import { draftDone, drafted } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { dayWords, useClosed } from './closed';

/** Sign: what is looked at last, by whom and when; a signed build is closed. */
export function SignStation({ report, write }: StationProps) {
  const { sign, build } = report;
  const dispatch = useAppDispatch();
  const router = useRouter();
  const account = useAppSelector((state) => state.session.account);
  const place = `${build.id}/sign`;
  const draft = useAppSelector((state) => state.drafts[place]);
  const name = draft?.name ?? account?.builderName ?? '';
  const note = draft?.note ?? '';
  const [asked, setAsked] = useState(false);
  const due = sign.checks.filter(({ state }) => state === 'due').length;
  const change = (part: Readonly<Record<string, string>>): void =>
    void dispatch(drafted({ place, draft: { name, note, ...part } }));
  const signIt = (): void => {
    if (name.trim() === '' || due > 0) {
      setAsked(true);
      return;
    }
    write('build.signed', {
      after: sign.reopened?.entry ?? null,
      name: name.trim().slice(0, 80),
      ...(note.trim() === '' ? {} : { note: note.trim().slice(0, 400) }),
    });
    dispatch(draftDone(place));
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
          {sign.closed && sign.signed
            ? `Signed by ${sign.signed.name} on ${dayWords(sign.signed.at)}`
            : sign.reopened
              ? `Reopened: ${sign.reopened.reason}`
              : 'Before it runs'}
        </Words>
        {sign.signed?.note && sign.closed ? <Words>{sign.signed.note}</Words> : null}
        {sign.open.length > 0 ? (
          <View className="gap-2" testID="open-points">
            {sign.open.map((each) => (
              <Notice key={each} kind="warning" message={each} />
            ))}
          </View>
        ) : null}
        {asked && due > 0 ? (
          <Words role="alert" tone="danger" testID="sign-trouble">
            Say of each check that it is done, or why it is skipped. Then sign.
          </Words>
        ) : null}
        <View role="list">
          {sign.checks.map((each) => (
            <SignCheckLine key={each.check} check={each} buildId={build.id} write={write} />
          ))}
        </View>
        {sign.baselines.length > 0 ? (
          <View className="gap-1" testID="baselines">
            <Words look="heading" level={2}>
              Kept as its baseline
            </Words>
            {sign.baselines.map(({ words }) => (
              <Words key={words}>{words}</Words>
            ))}
            <Words look="soft">A later check is compared with these: a lobe that lifts less is worn.</Words>
          </View>
        ) : (
          <Words look="soft">No lift was measured: a later check has nothing to be compared with.</Words>
        )}
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

interface SignCheckProps {
  readonly check: Report['sign']['checks'][number];
  readonly buildId: string;
  readonly write: Write;
}

function SignCheckLine({ check, buildId, write }: SignCheckProps) {
  const dispatch = useAppDispatch();
  const place = `${buildId}/skip-sign/${check.check}`;
  const typed = useAppSelector((state) => state.drafts[place]?.text);
  const closed = useClosed() !== null;
  const [asked, setAsked] = useState(false);
  const answer = (result: 'done' | 'skipped', reason?: string): void => {
    write('sign.checked', { replaces: check.entry, check: check.check, result, ...(reason ? { reason } : {}) });
    dispatch(draftDone(place));
    setAsked(false);
  };
  const skip = (): void => {
    const reason = (typed ?? '').trim().slice(0, 200);
    if (reason === '') setAsked(true);
    else answer('skipped', reason);
  };
  return (
    <View role="listitem" testID={`sign-${check.check}`} className="gap-1 border-t border-hairline py-3">
      <Words look="label">{check.title}</Words>
      <Words look="soft">{check.why}</Words>
      {typed === undefined ? null : (
        <TextField
          testID={`sign-reason-${check.check}`}
          label="Why it is skipped"
          value={typed}
          onChange={(text) => dispatch(drafted({ place, draft: { text } }))}
          error={asked && typed.trim() === '' ? 'Say why: it stands on the sheet.' : undefined}
          onSubmitEditing={skip}
        />
      )}
      <View className="flex-row flex-wrap items-center justify-between gap-x-4">
        {check.state === 'due' ? (
          <View />
        ) : (
          <Words look="label" tone={check.state === 'done' ? 'intake' : 'soft'} className="py-2">
            {check.state === 'done' ? 'done' : `skipped: ${check.reason ?? ''}`}
          </Words>
        )}
        <View className={closed ? 'hidden' : 'flex-row'}>
          {check.state === 'skipped' ? null : (
            <QuietButton
              label={typed === undefined ? 'Skip' : 'Skip it'}
              testID={`sign-skip-${check.check}`}
              onPress={() => (typed === undefined ? dispatch(drafted({ place, draft: { text: '' } })) : skip())}
            />
          )}
          {check.state === 'done' ? null : (
            <QuietButton label="Done" testID={`sign-done-${check.check}`} onPress={() => answer('done')} />
          )}
        </View>
      </View>
    </View>
  );
}
