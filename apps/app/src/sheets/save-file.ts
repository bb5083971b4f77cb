/** `fileNameOf('Old Tarn eight')` is "old-tarn-eight". */
export const fileNameOf = (name: string): string => name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();

/** Hands a file to the browser to keep. */
export function saveFile(fileName: string, content: Blob): void {
  const address = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = address;
  link.download = fileName;
  link.click();
  // The browser has to have begun to write it first.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

/** The same of a text. */
export const saveText = (fileName: string, text: string, type: string): void =>
  saveFile(fileName, new Blob([text], { type }));
