// How `import()` loads a script. Some need another one beside them, which several share: the build says which, in the
// page. Both are fetched at once, and the first is run when both are there.

const load = require('expo/internal/async-require-module');

let said;

function alsoNeeded(script) {
  if (said === undefined) {
    const list = typeof document === 'undefined' ? null : document.getElementById('also-needed');
    said = list ? JSON.parse(list.textContent) : {};
  }
  return said[script];
}

const fetchScript = (script) => globalThis[`${globalThis.__METRO_GLOBAL_PREFIX__ ?? ''}__loadBundleAsync`](script);

const here = new Set();

module.exports = function loadPlace(id, paths, name) {
  const script = paths?.[id];
  const shared = script === undefined ? undefined : alsoNeeded(script);
  // What is there already is given at once, as without this.
  if (shared === undefined || here.has(script)) return load(id, paths, name);
  return Promise.all([fetchScript(shared), fetchScript(script)]).then(() => {
    here.add(script);
    return load(id, paths, name);
  });
};
