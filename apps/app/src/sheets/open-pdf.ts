import { LONG_PATIENCE_MS } from '@/sync/api';

export const PAPERS = [
  { paper: 'a4', name: 'A4', label: 'Print it, A4' },
  { paper: 'letter', name: 'Letter', label: 'Print it, Letter' },
] as const;
export type Paper = (typeof PAPERS)[number]['paper'];

/**
 * Opens a sheet that the server lays out, on a page of its own.
 * @returns what is wrong, in words, or null.
 */
export async function openPdf(address: URL): Promise<string | null> {
  const answer = await fetch(address, { signal: AbortSignal.timeout(LONG_PATIENCE_MS) }).catch(() => null);
  if (answer?.status === 422) return ((await answer.json()) as { readonly detail: string }).detail;
  if (!answer?.ok)
    return 'The sheet is laid out by the server, which cannot be reached. Try again when there is a network.';
  const sheet = URL.createObjectURL(await answer.blob());
  const link = document.createElement('a');
  link.href = sheet;
  link.target = '_blank';
  link.rel = 'noopener';
  link.click();
  // The new page has to have opened it first.
  setTimeout(() => URL.revokeObjectURL(sheet), 60_000);
  return null;
}
