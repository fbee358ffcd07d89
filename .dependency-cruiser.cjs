// No file leads back to itself over what it imports, types included. ESLint's own rule takes four minutes for that.

module.exports = {
  forbidden: [{ name: 'no-circles', severity: 'error', from: {}, to: { circular: true } }],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'node_modules|/dist/|\\.test\\.tsx?$' },
    // Imports of types alone count, too.
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
