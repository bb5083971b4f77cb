import { z } from 'zod';
import { buildFileSchema } from '../record/file';
import { reportSchema } from './report-schema';

/** The published JSON Schemas (draft 2020-12) by the name of their file in `docs/`. */
export const jsonSchemas = (): Readonly<Record<string, unknown>> => ({
  'yosoku-build.schema.json': { title: 'Yosoku build file', ...z.toJSONSchema(buildFileSchema, { io: 'input' }) },
  'yosoku-report.schema.json': { title: 'Yosoku report', ...z.toJSONSchema(reportSchema) },
});
