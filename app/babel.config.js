module.exports = (api) => {
  // Jest loads modules with `require`, at once.
  const plugins = [api.env('test') ? '@babel/plugin-transform-dynamic-import' : './metro/straight-imports.js'];
  return { presets: ['babel-preset-expo'], plugins };
};
