export { bytesOf, halvesOf } from './base64';
export { instanceOf, type Memory } from './instance';
export { DENSE, PATHS, SPECTRA } from './kernels';
