import type { Result } from '../problem';
import { type ParseError, parse, printParseErrorCode, visit } from 'jsonc-parser';
import { type BuildFile, buildFileSchema } from './file';
import { firstIssue } from './issue-path';

export type ReadFile = Result<{ readonly file: BuildFile }, { readonly field: string; readonly message: string }>;

/** What is wrong at a place of a text that is no JSON. */
const WRONG: Readonly<Record<string, string>> = {
  InvalidSymbol: 'something stands here that JSON does not know',
  InvalidNumberFormat: 'this is not a number as JSON writes it',
  PropertyNameExpected: 'a name in double quotes is missing, or a comma is too many',
  ValueExpected: 'a value is missing, or a comma is too many',
  ColonExpected: 'a colon is missing',
  CommaExpected: 'a comma is missing',
  CloseBraceExpected: 'a closing brace is missing',
  CloseBracketExpected: 'a closing bracket is missing',
  EndOfFileExpected: 'something follows after the end',
  InvalidCommentToken: 'JSON knows no comments',
  UnexpectedEndOfString: 'a text has no closing quote',
  InvalidCharacter: 'a character stands in a text that must be written with a backslash',
  InvalidEscapeCharacter: 'a backslash stands before something that cannot follow it',
};

/** Where a text stops being JSON: `troubleIn('[1,\n2 3]')` is "line 2, column 3: a comma is missing". */
function troubleIn(text: string): string {
  const errors: ParseError[] = [];
  parse(text, errors, { disallowComments: true });
  const [first] = errors;
  if (!first) return 'this is not JSON text';
  const before = text.slice(0, first.offset).split('\n');
  const column = (before.at(-1) ?? '').length + 1;
  return `line ${before.length}, column ${column}: ${WRONG[printParseErrorCode(first.error)] ?? 'this is not JSON'}`;
}

/** A name that stands twice in one object, of which a reader would silently take the second; null where there is none. */
function twiceNamed(text: string): string | null {
  const open: Set<string>[] = [];
  let found: string | null = null;
  visit(text, {
    onObjectBegin: () => void open.push(new Set()),
    onObjectEnd: () => void open.pop(),
    onObjectProperty: (name, _offset, _length, line, character) => {
      const names = open.at(-1);
      if (names?.has(name))
        found ??= `line ${line + 1}, column ${character + 1}: “${name}” stands twice in one place; only one of the two can be meant`;
      names?.add(name);
    },
  });
  return found;
}

/**
 * Reads the text of a build file. A byte order mark before it is passed over.
 * @returns the file, or the field at fault (empty when the text is no JSON: then line and column are named) with what was expected there.
 */
export function readBuildFile(text: string): ReadFile {
  const plain = text.replace(/^\uFEFF/, '');
  let json: unknown;
  try {
    json = JSON.parse(plain);
  } catch {
    const short = plain.trimStart().startsWith('{') && !plain.trimEnd().endsWith('}');
    return {
      ok: false,
      field: '',
      message: short ? 'the file ends too early: it was cut short' : `this is not JSON text: ${troubleIn(plain)}`,
    };
  }
  const twice = twiceNamed(plain);
  if (twice !== null) return { ok: false, field: '', message: twice };
  const parsed = buildFileSchema.safeParse(json);
  if (!parsed.success) return { ok: false, ...firstIssue(parsed.error) };
  return { ok: true, file: parsed.data };
}
