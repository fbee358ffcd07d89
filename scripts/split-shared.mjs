// Metro puts every module that two places share into one script, which each page loads before it shows anything. Most
// places open with a press: what only they share goes into a script of its own, loaded with the first of them.

import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createContext, runInContext } from 'node:vm';

const FOLDER = '/_expo/static/js/web';
/** Asks Chromium to compile a whole script while it comes in, beside the page, not each function as it is first called. */
const AT_ONCE = '//# allFunctionsCalledOnLoad';
/** What is there when Hovlix is opened: the frame around every place, and the first place. */
const FIRST = ['./_layout.tsx', './index.tsx', './songs/index.tsx'];

/** Modules of a script as Metro wrote it: id -> { text, needs, uses }; `needs` is `uses` without what import() loads. */
function modulesOf(text) {
  const modules = new Map();
  const define = (factory, id, uses) => {
    const paths = uses.paths ?? {};
    const later = Object.keys(paths).map(Number);
    const all = Array.isArray(uses) ? uses : Object.entries(uses).flatMap(([key, to]) => (key === 'paths' ? [] : [to]));
    modules.set(id, {
      text: `__d(${factory},${id},${JSON.stringify(uses)});`,
      needs: all.filter((one) => !later.includes(one)),
      uses,
    });
  };
  runInContext(text, createContext({ __d: define, __r: () => {} }));
  return modules;
}

/** All that `ids` need, with themselves, without what is loaded by import(). */
function reached(ids, modules) {
  const found = new Set();
  const open = [...ids];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (found.has(id) || !modules.has(id)) continue;
    found.add(id);
    open.push(...modules.get(id).needs);
  }
  return found;
}

/** Ids of the places of `FIRST`: the table of places has their names in the order of its modules. */
function firstPlaces(modules) {
  const table = [...modules.values()].find(({ text }) => FIRST.every((place) => text.includes(`"${place}":`)));
  if (!table) throw new Error('The table of places is not where the build looks for it.');
  return FIRST.map((place) => {
    const at = new RegExp(
      `"${place.replace(/[.]/g, '\\.')}":\\{enumerable:!0,get\\(\\)\\{return \\w+\\(\\w+\\[\\d+\\]\\)\\(\\w+\\[(\\d+)\\]`,
    );
    const found = at.exec(table.text)?.[1];
    if (found === undefined) throw new Error(`The table of places has no ${place}.`);
    return table.uses[found];
  });
}

/**
 * Splits the shared script in `dist`. Returns the page `html` with its new name, and for each script that needs what was
 * taken out the address of that: { '/_expo/…/looks.js': '/_expo/…/shared-later.js' }.
 */
export function splitShared(dist, html) {
  const folder = join(dist, FOLDER);
  const names = readdirSync(folder).filter((name) => name.endsWith('.js') && !name.startsWith('__expo'));
  const scripts = new Map(names.map((name) => [name, modulesOf(readFileSync(join(folder, name), 'utf8'))]));
  const all = new Map([...scripts.values()].flatMap((modules) => [...modules]));
  const shared = names.find((name) => name.startsWith('__common-'));
  const entries = names.filter((name) => name !== shared && html.includes(`${FOLDER}/${name}`));
  const first = reached([...entries.flatMap((name) => [...scripts.get(name).keys()]), ...firstPlaces(all)], all);

  const write = (start, modules, ...before) => {
    const text = [...before, ...modules.map(([, { text }]) => text)].join('\n');
    const name = `${start}-${createHash('sha256').update(text).digest('hex').slice(0, 32)}.js`;
    writeFileSync(join(folder, name), text);
    return `${FOLDER}/${name}`;
  };
  const parts = [...scripts.get(shared)];
  const now = write(
    '__common',
    parts.filter(([id]) => first.has(id)),
    AT_ONCE,
  );
  const later = write(
    '__shared-later',
    parts.filter(([id]) => !first.has(id)),
  );
  rmSync(join(folder, shared));
  for (const name of [...entries, ...names.filter((name) => name.startsWith('_layout-'))]) {
    const at = join(folder, name);
    writeFileSync(at, `${AT_ONCE}\n${readFileSync(at, 'utf8')}`);
  }

  const without = new Set(parts.flatMap(([id]) => (first.has(id) ? [] : [id])));
  const needy = names.filter(
    (name) => name !== shared && [...reached(scripts.get(name).keys(), all)].some((id) => without.has(id)),
  );
  return {
    html: html.replaceAll(`${FOLDER}/${shared}`, now),
    alsoNeeded: Object.fromEntries(needy.map((name) => [`${FOLDER}/${name}`, later])),
  };
}
