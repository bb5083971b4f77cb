import { type ReactNode, createContext, useCallback, useContext, useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { cutText } from '@yosoku/core/units/text';
import { type Write, newId } from './use-logbook';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

interface ClosedBuild {
  readonly signature: string;
  readonly words: string;
  readonly buildId: string;
  readonly write: Write;
  /** Something was tried that would have written. */
  readonly tried: boolean;
}

/** A day in words: "5 Nov 2026". */
export const dayWords = (iso: string): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' }).format(new Date(iso));

/** The server's clock is named where it gives another day than the device's, one of which may be wrong. */
const receivedLater = ({ at, received }: { readonly at: string; readonly received: string | null }): string =>
  received === null || dayWords(received) === dayWords(at) ? '' : ` (received by the server on ${dayWords(received)})`;

const ClosedContext = createContext<ClosedBuild | null>(null);

/** The signature that closes the build at hand, or null. */
export const useClosed = (): ClosedBuild | null => useContext(ClosedContext);

interface ClosedProps {
  readonly report: Report;
  readonly write: Write;
  readonly children: (inside: { readonly write: Write; readonly closed: boolean }) => ReactNode;
}

/** Keeps hands off a signed build: what would be written is not, and why is said. */
export function Closed({ report, write, children }: ClosedProps) {
  const { signed, closed } = report.sign;
  const [tried, setTried] = useState(false);
  const refuse = useCallback<Write>(() => {
    setTried(true);
    return newId();
  }, []);
  const value = useMemo(
    () =>
      closed && signed
        ? {
            signature: signed.entry,
            words: `Signed by ${signed.name} on ${dayWords(signed.at)}${receivedLater(signed)}, and closed.`,
            buildId: report.build.id,
            write,
            tried,
          }
        : null,
    [closed, report.build.id, signed, tried, write],
  );
  return (
    <ClosedContext.Provider value={value}>
      {children({ write: value ? refuse : write, closed: value !== null })}
    </ClosedContext.Provider>
  );
}

const LONGEST_REASON = 200;

/** Opens a signed build again, with a reason. */
export function Reopen({ closed }: { readonly closed: ClosedBuild }) {
  const { draft, change, done } = useDraft<'text'>(`${closed.buildId}/reopen`);
  const reason = draft.text;
  const [asked, setAsked] = useState(false);
  const reopen = (): void => {
    const said = cutText((reason ?? '').trim(), LONGEST_REASON);
    if (said === '') {
      setAsked(true);
      return;
    }
    closed.write('build.reopened', { signature: closed.signature, reason: said });
    done();
  };
  return (
    <View className="gap-2 border-t border-hairline pt-2" testID="closed">
      <View className="gap-2 px-4 wide:px-0">
        <Words look="label" role={closed.tried ? 'alert' : undefined}>
          {closed.tried ? `${closed.words} Nothing was written: reopen it first.` : closed.words}
        </Words>
        {reason === undefined ? null : (
          <TextField
            testID="reopen-reason"
            label="Why it is opened again"
            value={reason}
            onChange={(text) => change({ text })}
            error={asked && reason.trim() === '' ? 'Say why: it stands on the sheet.' : undefined}
            onSubmitEditing={reopen}
          />
        )}
      </View>
      <PrimaryButton
        testID="reopen"
        label={reason === undefined ? 'Reopen it' : 'Reopen it for this reason'}
        onPress={() => (reason === undefined ? change({ text: '' }) : reopen())}
      />
    </View>
  );
}
