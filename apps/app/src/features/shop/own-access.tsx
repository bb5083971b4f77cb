import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { deviceWords } from '@/forms/device-words';
import { NewPassword } from '@/forms/new-password';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';
import { QuietButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

/** One's own password, and the devices that one is signed in on. */
export function OwnAccess() {
  return (
    <View>
      <Words look="heading" level={2} className="pb-1">
        Your access
      </Words>
      <More label="Change the password" testID="more-password">
        <ChangePassword />
      </More>
      <More label="Where you are signed in" testID="more-sessions">
        <Sessions />
      </More>
    </View>
  );
}

function ChangePassword() {
  const account = useAppSelector((state) => state.session.account);
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [done, setDone] = useState(false);
  const { busy, trouble, attempt } = useAttempt();
  const change = async (): Promise<void> => {
    setDone(false);
    if (!(await attempt(() => ask(api.session.password.$put({ json: { old, password } }))))) return;
    setOld('');
    setPassword('');
    setDone(true);
  };
  return (
    <View className="gap-4">
      <TextField
        testID="old-password"
        label="The password now"
        value={old}
        onChange={setOld}
        secureTextEntry
        autoComplete="current-password"
        error={trouble?.fields.old}
      />
      <NewPassword
        testID="changed-password"
        label="New password"
        value={password}
        onChange={setPassword}
        names={[account?.shopName ?? '', account?.builderName ?? '']}
        error={trouble?.fields.password}
      />
      {trouble && Object.keys(trouble.fields).length === 0 ? <Notice kind="danger" message={trouble.message} /> : null}
      {done ? (
        <Words role="status" testID="password-changed">
          Changed. You are signed out everywhere else.
        </Words>
      ) : null}
      <View className="items-start">
        <QuietButton
          testID="change-password"
          label={busy ? 'Changing' : 'Change it'}
          disabled={busy || old === '' || password === ''}
          onPress={() => void change()}
        />
      </View>
    </View>
  );
}

interface Session {
  readonly id: string;
  readonly begunAt: string | null;
  readonly seenAt: string | null;
  readonly agent: string;
  readonly name: string | null;
  readonly here: boolean;
}

function Sessions() {
  const [sessions, setSessions] = useState<readonly Session[] | 'asking' | 'unreachable'>('asking');
  const [asked, setAsked] = useState(0);
  const { trouble, attempt } = useAttempt();
  useEffect(() => {
    ask(api.sessions.$get()).then(
      (answer) => setSessions(answer.sessions),
      () => setSessions('unreachable'),
    );
  }, [asked]);
  const end = async (work: () => Promise<unknown>): Promise<void> => {
    await attempt(work);
    setAsked(asked + 1);
  };
  if (sessions === 'asking') return <Words look="soft">Loading.</Words>;
  if (sessions === 'unreachable') return <Words look="soft">The server cannot be reached just now.</Words>;
  return (
    <View role="list" testID="sessions">
      {sessions.map((session) => (
        <View
          key={session.id}
          role="listitem"
          className="min-h-[48px] flex-row flex-wrap items-center justify-between gap-x-3 border-b border-hairline"
        >
          <Words className="shrink">{`${session.name ?? deviceWords(session.agent)}${session.here ? ', this one' : ''}`}</Words>
          <Words look="soft">{session.seenAt === null ? '' : `used ${timeWords(session.seenAt)}`}</Words>
          {session.here ? null : (
            <QuietButton
              testID="end-session"
              label="End it"
              onPress={() => void end(() => ask(api.sessions[':id'].$delete({ param: { id: session.id } })))}
            />
          )}
        </View>
      ))}
      {sessions.length > 1 ? (
        <View className="items-start">
          <QuietButton
            testID="end-others"
            label="End all others"
            onPress={() => void end(() => ask(api.sessions.$delete()))}
          />
        </View>
      ) : null}
      {trouble ? <Notice kind="danger" message={trouble.message} /> : null}
    </View>
  );
}

const timeWords = (iso: string): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }).format(
    new Date(iso),
  );
