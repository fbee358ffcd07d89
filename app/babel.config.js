module.exports = (api) => {
  // Jest loads modules with `require`, at once.
  const plugins = api.env('test') ? ['@babel/plugin-transform-dynamic-import'] : [];
  return { presets: ['babel-preset-expo'], plugins };
};
