import { writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { jsonSchemas } from '../src/logbook/json-schemas';

/** `npm run schemas`: writes the JSON Schemas of the open formats into docs/. */
for (const [name, schema] of Object.entries(jsonSchemas()))
  writeFileSync(
    new URL(`../../../docs/${name}`, import.meta.url),
    await format(JSON.stringify(schema), { parser: 'json' }),
  );
