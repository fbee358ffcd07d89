export { bytesOf, halvesOf } from './base64';
export { instanceOf, roomIn } from './instance';
export { DENSE, PATHS, SPECTRA } from './kernels';
