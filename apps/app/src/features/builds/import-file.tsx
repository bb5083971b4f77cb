import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import { placeHref } from '@/shell/station-line';
import { type RootState, type Store } from '@/store/store';
import { Refusal, api, LONG_PATIENCE_MS } from '@/sync/api';
import { fetchBuilds } from '@/sync/fetch-builds';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

/** What the server takes. */
const LARGEST_FILE = 16 * 1024 * 1024;

interface Trouble {
  readonly message: string;
  readonly remedy: string;
}

/** Takes a build file into the shop: all of it, or nothing. */
export function TakeInFile() {
  const router = useRouter();
  const store = useStore<RootState>() as unknown as Store;
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const take = async (file: File): Promise<void> => {
    setTrouble(null);
    if (file.size > LARGEST_FILE) {
      setTrouble({
        message: `“${file.name}” has ${Math.round(file.size / 1e6)} MB: no build is that large.`,
        remedy: 'Nothing was imported. Look whether it is the right file.',
      });
      return;
    }
    setBusy(file.name);
    try {
      const { buildId } = await takeIn(await file.text());
      await fetchBuilds(store);
      router.push(placeHref(buildId, 'sheet'));
    } catch (error) {
      setTrouble(
        error instanceof Refusal
          ? { message: `“${file.name}” was not imported.`, remedy: error.detail }
          : {
              message: `“${file.name}” was not imported: the server cannot be reached.`,
              remedy: 'Nothing was changed. Try again when there is a network.',
            },
      );
    } finally {
      setBusy(null);
    }
  };
  return (
    <View className="gap-2">
      <View className="self-start">
        <FileField
          testID="take-in"
          label="Import a build file"
          accept=".json,application/json"
          onFile={(file) => void take(file)}
        />
      </View>
      {busy ? <Words look="soft">{`Importing “${busy}”.`}</Words> : null}
      {trouble ? <Notice kind="danger" testID="take-in-trouble" {...trouble} /> : null}
    </View>
  );
}

/** The text goes as it is: the server says what is wrong with it, field by field. */
async function takeIn(text: string): Promise<{ readonly buildId: string }> {
  const answer = await fetch(api.import.$url(), {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: text,
    signal: AbortSignal.timeout(LONG_PATIENCE_MS),
  });
  const body = (await answer.json()) as { readonly buildId?: string; readonly detail?: string };
  if (!answer.ok || body.buildId === undefined)
    throw new Refusal(answer.status, body.detail ?? 'The server could not do that.', []);
  return { buildId: body.buildId };
}
