import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import { placeHref } from '@/shell/station-line';
import { keepPhoto } from '@/store/photo-storage';
import { photosWait } from '@/store/photos-slice';
import { type RootState, type Store } from '@/store/store';
import { Refusal, api, LONG_PATIENCE_MS } from '@/sync/api';
import { fetchBuilds } from '@/sync/fetch-builds';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';

/** What the server takes. */
const LARGEST_FILE = 16 * 1024 * 1024;
/** With its photos. */
const LARGEST_ZIP = 256 * 1024 * 1024;

interface Trouble {
  readonly message: string;
  readonly remedy: string;
  /** The build that is here all the same. */
  readonly buildId?: string;
}

const isZip = ({ name }: File): boolean => /\.zip$/i.test(name);

/** Imports a build file into the shop, alone or in a zip with its photos: all of its entries, or nothing. */
export function TakeInFile() {
  const router = useRouter();
  const store = useStore<RootState>() as unknown as Store;
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const take = async (file: File): Promise<void> => {
    setTrouble(null);
    if (file.size > (isZip(file) ? LARGEST_ZIP : LARGEST_FILE)) {
      setTrouble({
        message: `“${file.name}” has ${Math.round(file.size / 1e6)} MB: no build is that large.`,
        remedy: 'Nothing was imported. Look whether it is the right file.',
      });
      return;
    }
    setBusy(file.name);
    try {
      const { buildId, lost } = isZip(file) ? await importZip(store, file) : await importText(await file.text());
      await fetchBuilds(store);
      if (lost === null) router.push(placeHref(buildId, 'sheet'));
      else setTrouble({ message: `“${file.name}” was imported.`, remedy: lost, buildId });
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
          accept=".json,.zip,application/json,application/zip"
          onFile={(file) => void take(file)}
        />
      </View>
      {busy ? <Words look="soft">{`Importing “${busy}”.`}</Words> : null}
      {trouble ? (
        <Notice
          kind={trouble.buildId === undefined ? 'danger' : 'warning'}
          testID="take-in-trouble"
          message={trouble.message}
          remedy={trouble.remedy}
        />
      ) : null}
      {trouble?.buildId === undefined ? null : (
        <TextLink href={placeHref(trouble.buildId, 'sheet')} className="py-2">
          Open it
        </TextLink>
      )}
    </View>
  );
}

interface Imported {
  readonly buildId: string;
  /** What of it is not here, in words, or null. */
  readonly lost: string | null;
}

/** The text goes as it is: the server says what is wrong with it, field by field. */
async function importText(text: string): Promise<Imported> {
  const answer = await fetch(api.import.$url(), {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: text,
    signal: AbortSignal.timeout(LONG_PATIENCE_MS),
  });
  const body = (await answer.json()) as { readonly buildId?: string; readonly detail?: string };
  if (!answer.ok || body.buildId === undefined)
    throw new Refusal(answer.status, body.detail ?? 'The server could not do that.', []);
  return { buildId: body.buildId, lost: null };
}

/** The logbook first; its photos are kept on this device and sent like those that were taken on it. */
async function importZip(store: Store, file: File): Promise<Imported> {
  const { picturesNamed, unpackLogbook } = await import('@/sheets/logbook-zip');
  const unpacked = await unpackLogbook(new Uint8Array(await file.arrayBuffer()));
  if (!unpacked.ok) throw new Refusal(422, `${unpacked.message} Nothing was imported.`, []);
  const { logbook, pictures } = unpacked;
  const { buildId } = await importText(logbook);
  const shopId = store.getState().session.account?.shopId ?? '';
  const named = picturesNamed(logbook);
  const missing = named.filter((picture) => !pictures.has(picture)).length;
  let unkept = 0;
  for (const picture of named) {
    const bytes = pictures.get(picture);
    if (!bytes) continue;
    const name = { shopId, buildId, picture };
    await keepPhoto(name, new Blob([bytes], { type: 'image/jpeg' }), true).then(
      () => store.dispatch(photosWait([name])),
      () => (unkept += 1),
    );
  }
  const lost = [
    missing > 0 ? `${missing} of its ${named.length} photos are not in the file, or damaged.` : '',
    unkept > 0 ? `This device has no room for ${unkept} of its photos: free some space and import it again.` : '',
  ].filter((each) => each !== '');
  return { buildId, lost: lost.length === 0 ? null : lost.join(' ') };
}
