// A Babel plugin: what is imported from the face of a folder (`../rig`, `@hovlix/core/rig`) is imported from the file
// that has it. Metro puts into a place of the app every file that its imports name; with this a place carries what it
// uses and not all that stands behind the same face.

const fs = require('fs');
const path = require('path');

const CORE = path.join(__dirname, '../../core');
const FACES = JSON.parse(fs.readFileSync(path.join(CORE, 'package.json'), 'utf8')).exports;
const ENDINGS = ['', '.ts', '.tsx', '/index.ts', '/index.tsx'];

/** The file that `source` in the file `from` means, or undefined for a package that is not ours. */
function fileOf(source, from) {
  const face = source.startsWith('@hovlix/core') ? FACES[source.replace('@hovlix/core', '.')] : undefined;
  if (face !== undefined) return path.join(CORE, face);
  if (!source.startsWith('.')) return undefined;
  const whole = path.resolve(path.dirname(from), source);
  return ENDINGS.map((ending) => whole + ending).find((file) => fs.existsSync(file) && fs.statSync(file).isFile());
}

/** Names of what a statement declares itself. */
function declared(statement) {
  const one = statement.declaration;
  if (!one) return statement.specifiers.map((each) => each.exported.name);
  if (one.id) return [one.id.name];
  return (one.declarations ?? []).flatMap(({ id }) => (id.name === undefined ? [] : [id.name]));
}

module.exports = ({ parseSync, types: t }) => {
  const known = new Map();

  /** Where each name that `file` exports is: name -> { file, name }. */
  function exportsOf(file) {
    const before = known.get(file);
    if (before) return before;
    const found = new Map();
    known.set(file, found);
    const parsed = parseSync(fs.readFileSync(file, 'utf8'), {
      filename: file,
      babelrc: false,
      configFile: false,
      parserOpts: { plugins: ['typescript', 'jsx'] },
    });
    for (const statement of parsed.program.body) {
      if (t.isExportAllDeclaration(statement)) {
        const at = fileOf(statement.source.value, file);
        for (const [name, place] of at ? exportsOf(at) : []) if (!found.has(name)) found.set(name, place);
      } else if (t.isExportNamedDeclaration(statement) && statement.source) {
        const at = fileOf(statement.source.value, file);
        for (const { local, exported } of statement.specifiers) {
          const place = at && local ? exportsOf(at).get(local.name) : undefined;
          found.set(exported.name, place ?? { file, name: exported.name });
        }
      } else if (t.isExportNamedDeclaration(statement))
        for (const name of declared(statement)) found.set(name, { file, name });
    }
    return found;
  }

  function straight(statement, from) {
    const named = statement.specifiers.every((one) => t.isImportSpecifier(one) && t.isIdentifier(one.imported));
    const file = named && statement.specifiers.length > 0 ? fileOf(statement.source.value, from) : undefined;
    if (file === undefined || !/\.tsx?$/.test(file)) return [statement];
    const places = exportsOf(file);
    const parts = new Map();
    for (const one of statement.specifiers) {
      const place = places.get(one.imported.name) ?? { file, name: one.imported.name };
      const specifier = t.importSpecifier(one.local, t.identifier(place.name));
      specifier.importKind = one.importKind;
      parts.set(place.file, [...(parts.get(place.file) ?? []), specifier]);
    }
    if (parts.size === 1 && parts.has(file)) return [statement];
    return [...parts].map(([at, specifiers]) => {
      const relative = path
        .relative(path.dirname(from), at)
        .replace(/\\/g, '/')
        .replace(/\.tsx?$/, '');
      const source = relative.startsWith('.') ? relative : `./${relative}`;
      const put = t.importDeclaration(specifiers, t.stringLiteral(source));
      put.importKind = statement.importKind;
      return put;
    });
  }

  return {
    name: 'straight-imports',
    visitor: {
      Program(program, { filename }) {
        if (!filename || filename.includes('node_modules')) return;
        program.node.body = program.node.body.flatMap((one) =>
          t.isImportDeclaration(one) ? straight(one, filename) : [one],
        );
        program.scope.crawl();
      },
    },
  };
};
