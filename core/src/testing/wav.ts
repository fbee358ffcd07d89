/** A mono recording of 16 bits. @param samples -1…1. @param rate samples a second. */
export function wavOf(samples: Float32Array, rate: number): Uint8Array {
  const view = new DataView(new ArrayBuffer(44 + samples.length * 2));
  const tag = (at: number, text: string) =>
    [...text].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  tag(0, 'RIFF');
  view.setUint32(4, view.byteLength - 8, true);
  tag(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  tag(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  samples.forEach((one, i) => view.setInt16(44 + 2 * i, Math.round(one * 32_767), true));
  return new Uint8Array(view.buffer);
}
