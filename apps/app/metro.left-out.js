/* Stands in for a part of a library that this app never uses (see metro.config.js). Whoever does use it is told so. */
const leftOut = (name) => () => {
  throw new Error(`“${name}” was left out of the bundle: take it off the list in metro.config.js.`);
};

module.exports = new Proxy(
  { __esModule: true },
  { get: (target, name) => (name in target || typeof name === 'symbol' ? target[name] : leftOut(name)) },
);
