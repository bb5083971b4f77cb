import { type core, config } from 'zod';

type Issue = core.$ZodRawIssue;

const KINDS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  object: 'an object in braces',
  array: 'a list in brackets',
};

/** `sizeWords({ origin: 'array' }, 'at least 2')` is "the list must have at least 2 entries". */
function sizeWords({ origin }: { readonly origin: string }, limit: string): string {
  if (origin === 'array') return `the list must have ${limit} entries`;
  if (origin === 'string') return `the text must have ${limit} characters`;
  return `the number must be ${limit}`;
}

/**
 * What is wrong with a value, where its own schema says nothing: no word of the library reaches a builder.
 * @example plainWords({ code: 'invalid_type', expected: 'number', input: undefined }) // "is missing: expected a number"
 */
export function plainWords(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = `expected ${KINDS[issue.expected] ?? issue.expected}`;
      return issue.input === undefined ? `is missing: ${wanted}` : wanted;
    }
    case 'invalid_value':
      return issue.values.length === 1
        ? `expected ${JSON.stringify(issue.values[0])}`
        : `expected one of ${issue.values.map((value) => JSON.stringify(value)).join(', ')}`;
    case 'invalid_union':
      return 'is of no kind that is known here';
    case 'too_small':
      return sizeWords(issue, `at least ${issue.minimum}`);
    case 'too_big':
      return sizeWords(issue, `at most ${issue.maximum}`);
    case 'unrecognized_keys':
      return `has fields that are not known here: ${issue.keys.join(', ')}`;
    default:
      return 'is not understood';
  }
}

// A module with an effect: package.json names it, or a bundler would leave it out.
config({ localeError: plainWords });
