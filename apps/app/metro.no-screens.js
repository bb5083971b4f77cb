/* Stands in for the screens of telephones' own applications, of which the web target only sets flags (see metro.config.js). */
module.exports = { featureFlags: { experiment: {} } };
