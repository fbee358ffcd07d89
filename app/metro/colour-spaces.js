// What core uses of the colour library; its index would bring every colour space along.
export { differenceCiede2000 } from '../../node_modules/culori/src/difference.js';
export { default as modeHsv } from '../../node_modules/culori/src/hsv/definition.js';
export { default as modeLab65 } from '../../node_modules/culori/src/lab65/definition.js';
export { default as modeRgb } from '../../node_modules/culori/src/rgb/definition.js';
export { useMode } from '../../node_modules/culori/src/modes.js';
