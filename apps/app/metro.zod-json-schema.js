/* Stands in for zod's own writer of JSON Schemas (see metro.config.js): every schema asks it for a method when it is made, the app calls none. */
const leftOut = () => {
  throw new Error('JSON Schemas are written by `npm run schemas`, not by the app.');
};

module.exports = {
  __esModule: true,
  createToJSONSchemaMethod: () => leftOut,
  createStandardJSONSchemaMethod: () => leftOut,
  initializeContext: leftOut,
  handleUnrepresentable: leftOut,
  processSchema: leftOut,
  process: leftOut,
  extractDefs: leftOut,
  finalize: leftOut,
};
