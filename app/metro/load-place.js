// How `import()` loads a script. It is fetched at once, not only after its module was asked for in vain: such an attempt
// throws, and a browser with its tools open then reads a whole bundle anew to say where. Some need another one beside
// them, which several share: the build says which, in the page. A module is run when all of its scripts are there.

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

/** Whether the page itself names it, so that it ran before the script that asks. */
const inPage = (script) => document.querySelector(`script[src="${script}"]`) !== null;

const here = new Set();
const coming = new Map();

/** Asked for once, however many want it; one that failed is asked for anew. */
function fetchPlace(script) {
  const shared = alsoNeeded(script);
  const fetched = Promise.all([shared === undefined ? undefined : fetchScript(shared), fetchScript(script)]).then(
    () => void here.add(script),
  );
  coming.set(script, fetched);
  const done = () => coming.delete(script);
  fetched.then(done, done);
  return fetched;
}

module.exports = function loadPlace(id, paths, name) {
  const script = paths?.[id];
  if (script === undefined || typeof document === 'undefined' || here.has(script) || inPage(script))
    return load(id, paths, name);
  return (coming.get(script) ?? fetchPlace(script)).then(() => load(id, paths, name));
};
