// Jest's transformer: esbuild, at Node's own level. Babel's output made the music analysis ten times slower.
const { transformSync } = require('esbuild');

module.exports = {
  process(source, file) {
    const loader = /\.tsx?$/.test(file) ? 'ts' : 'js';
    return transformSync(source, {
      loader,
      format: 'cjs',
      target: 'node20',
      // Jest runs no dynamic imports: they become calls of `require`.
      supported: { 'dynamic-import': false },
      sourcemap: 'inline',
      sourcefile: file,
    });
  },
};
