import { type Table, separatorOf } from '@yosoku/core/measure/trace-table';

/** Takes the text of a table apart, as papaparse does: it is fetched where it is needed, and no part of the first page. */
type Parse = (text: string, how: { readonly delimiter: string }) => { readonly data: Table };

/** A table out of the text of a file or of the clipboard, with whatever stands between its columns. */
export function tableOf(text: string, parse: Parse): Table {
  const delimiter = separatorOf(text);
  const spaced = delimiter === ' ' ? text.replaceAll(/ +/g, ' ').replaceAll(/^ | $/gm, '') : text;
  return parse(spaced, { delimiter }).data;
}
