import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { signedIn } from '@/store/session-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';
import { QuietButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { AddBuilder } from './add-builder';

interface Builder {
  readonly id: string;
  readonly name: string;
  readonly signInName: string;
  readonly role: string;
  readonly endedAt: string | null;
}

/** The builders of the shop. The owner adds them, gives them a code for a new password, ends their access, hands the shop over. */
export function Builders() {
  const account = useAppSelector((state) => state.session.account);
  const [builders, setBuilders] = useState<readonly Builder[] | 'asking' | 'unreachable'>('asking');
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    ask(api.builders.$get()).then(
      (answer) => setBuilders(answer.builders),
      () => setBuilders('unreachable'),
    );
  }, [asked]);
  const owner = account?.role === 'owner';
  return (
    <View className="gap-2">
      <Words look="heading" level={2}>
        Builders
      </Words>
      {builders === 'asking' ? (
        <Words look="soft">Loading the builders.</Words>
      ) : builders === 'unreachable' ? (
        <Words look="soft">The server cannot be reached just now.</Words>
      ) : (
        <View role="list">
          {builders.map((builder) => (
            <View key={builder.id} role="listitem" testID="builder" className="border-b border-hairline">
              <View className="min-h-[44px] flex-row flex-wrap items-center gap-x-3">
                <Words className="shrink grow">{builder.name}</Words>
                <Words look="soft">
                  {`${builder.signInName}${builder.role === 'owner' ? ' · owner' : ''}${builder.endedAt ? ' · access ended' : ''}`}
                </Words>
              </View>
              {owner && builder.id !== account?.builderId ? (
                <More label="Change" testID={`more-${builder.signInName}`}>
                  <ChangeBuilder builder={builder} onChanged={() => setAsked(asked + 1)} />
                </More>
              ) : null}
            </View>
          ))}
        </View>
      )}
      {owner ? <AddBuilder onAdded={() => setAsked(asked + 1)} /> : null}
    </View>
  );
}

function ChangeBuilder({ builder, onChanged }: { readonly builder: Builder; readonly onChanged: () => void }) {
  const dispatch = useAppDispatch();
  const [code, setCode] = useState<string | null>(null);
  const [asking, setAsking] = useState<'end' | 'hand-over' | null>(null);
  const [password, setPassword] = useState('');
  const { trouble, attempt } = useAttempt();
  const param = { id: builder.id };
  const giveCode = async (): Promise<void> => {
    await attempt(async () => setCode((await ask(api.builders[':id'].code.$post({ param }))).code));
  };
  const end = async (): Promise<void> => {
    if (await attempt(() => ask(api.builders[':id'].end.$post({ param })))) onChanged();
  };
  const handOver = async (): Promise<void> => {
    const done = await attempt(async () => {
      await ask(api.shop.owner.$put({ json: { to: builder.id, password } }));
      dispatch(signedIn(await ask(api.session.$get())));
    });
    if (done) onChanged();
  };
  return (
    <View className="gap-2 pb-2">
      <View className="flex-row flex-wrap gap-x-5">
        <QuietButton
          testID="give-code"
          label={builder.endedAt ? 'Restore access, with a code' : 'Code for a new password'}
          onPress={() => void giveCode()}
        />
        {builder.endedAt ? null : (
          <>
            <QuietButton testID="end-access" label="End the access" onPress={() => setAsking('end')} />
            <QuietButton testID="hand-over" label="Hand the shop over" onPress={() => setAsking('hand-over')} />
          </>
        )}
      </View>
      {code ? (
        <Notice
          kind="warning"
          testID="given-code"
          message={`The code for ${builder.name}, shown only now:`}
          remedy="Good once, for a day: on the sign-in page, under “I have a code for a new password”."
        >
          <Words look="figure" selectable testID="given-code-value">
            {code}
          </Words>
        </Notice>
      ) : null}
      {asking === 'end' ? (
        <Notice
          kind="warning"
          message={`${builder.name} is signed out everywhere and cannot sign in any more.`}
          remedy="What was written stays, with the name. You can let the builder in again."
        >
          <QuietButton testID="end-access-yes" label="End it" onPress={() => void end()} />
        </Notice>
      ) : null}
      {asking === 'hand-over' ? (
        <View className="gap-2">
          <TextField
            testID="hand-over-password"
            label={`Your password, to make ${builder.name} the owner. You stay as a builder`}
            value={password}
            onChange={setPassword}
            secureTextEntry
            autoComplete="current-password"
            error={trouble?.fields.password}
          />
          <View className="items-start">
            <QuietButton testID="hand-over-yes" label="Hand it over" onPress={() => void handOver()} />
          </View>
        </View>
      ) : null}
      {trouble && Object.keys(trouble.fields).length === 0 ? <Notice kind="danger" message={trouble.message} /> : null}
    </View>
  );
}
