/* Stands in for a part of a library that this app never uses (see metro.config.js). Whoever does use it is told so. */
module.exports = new Proxy(
  { __esModule: true },
  {
    get(target, name) {
      if (name in target || typeof name === 'symbol') return target[name];
      throw new Error(`“${name}” was left out of the bundle: take it off the list in metro.config.js.`);
    },
  },
);
