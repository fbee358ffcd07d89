// What core uses of the colour library for hues alone: the first place needs these, and no differences of colours.
export { default as modeHsv } from '../../node_modules/culori/src/hsv/definition.js';
export { default as modeRgb } from '../../node_modules/culori/src/rgb/definition.js';
export { useMode } from '../../node_modules/culori/src/modes.js';
