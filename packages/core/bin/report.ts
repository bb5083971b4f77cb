import { readFileSync } from 'node:fs';
import { readBuildFile } from '../src/record/read-file';
import { derive } from '../src/report/report';

/** `npm run -s report -- FILE`: prints the Report of a build file as JSON. `-` reads standard input. Exit 2 for a bad file. */
function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(2);
}

const [path, ...rest] = process.argv.slice(2);
if (path === undefined || rest.length > 0) fail('usage: npm run -s report -- FILE   (or - for standard input)');

let text: string;
try {
  text = readFileSync(path === '-' ? 0 : path, 'utf8');
} catch {
  fail(`${path}: cannot be read`);
}
const read = readBuildFile(text);
if (!read.ok) fail(`${path}: ${read.field ? `${read.field}: ` : ''}${read.message}`);
const report = derive(read.file.entries);
if (!report) fail(`${path}: entries: every build.described entry has been voided, so nothing says what engine this is`);
process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
