export type WavKind = {
  /** 8, 16 or 24. */
  readonly bits?: number;
  readonly channels?: number;
  /** Numbers in place of steps; of 32 bits. */
  readonly float?: boolean;
};

/** A recording, the same on each channel. @param samples -1…1. @param rate samples a second. */
export function wavOf(
  samples: Float32Array,
  rate: number,
  { bits = 16, channels = 1, float = false }: WavKind = {},
): Uint8Array {
  const width = bits / 8;
  const size = samples.length * channels * width;
  const view = new DataView(new ArrayBuffer(44 + size));
  const tag = (at: number, text: string) =>
    [...text].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  tag(0, 'RIFF');
  view.setUint32(4, view.byteLength - 8, true);
  tag(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, float ? 3 : 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * width * channels, true);
  view.setUint16(32, width * channels, true);
  view.setUint16(34, bits, true);
  tag(36, 'data');
  view.setUint32(40, size, true);
  const put = (at: number, value: number) => {
    if (float) view.setFloat32(at, value, true);
    else if (bits === 8) view.setUint8(at, 128 + Math.round(value * 127));
    else if (bits === 16) view.setInt16(at, Math.round(value * 32_767), true);
    else {
      const whole = Math.round(value * 8_388_607);
      view.setUint16(at, whole & 0xffff, true);
      view.setInt8(at + 2, whole >> 16);
    }
  };
  samples.forEach((one, i) => {
    for (let c = 0; c < channels; c++) put(44 + (i * channels + c) * width, one);
  });
  return new Uint8Array(view.buffer);
}
