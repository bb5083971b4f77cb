import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format } from 'prettier';
import { jsonSchemas } from '../src/report/json-schemas';

const TO = path.resolve(process.argv[2] ?? path.join(import.meta.dirname, '../../../docs'));

/** `npm run schemas`: writes the JSON Schemas of the open formats into docs/, or into the folder that is named. */
for (const [name, schema] of Object.entries(jsonSchemas()))
  writeFileSync(path.join(TO, name), await format(JSON.stringify(schema), { parser: 'json' }));
