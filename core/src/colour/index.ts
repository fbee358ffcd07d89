export * from './spaces';
export * from './hue';
export * from './emitters';
export * from './wheel';
export * from './difference';
export * from './swatches';
