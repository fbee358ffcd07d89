import { layerReader } from './layers';

/** One layer of two outputs with three weights each, as the trainer writes it. */
function written(): Uint8Array {
  const bytes = new Uint8Array(4 * 4 + 6);
  const view = new DataView(bytes.buffer);
  [0.5, 0.25, -1, 2].forEach((value, i) => view.setFloat32(i * 4, value, true));
  bytes.set(new Uint8Array(Int8Array.from([127, -127, 0, 1, 2, -4]).buffer), 16);
  return bytes;
}

const text = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64');

test('weights count by the scale of their output', () => {
  const layers = layerReader(text(written()), 'some.json');
  const { weights, biases } = layers.next(2, 3);
  layers.end();
  expect([...weights]).toEqual([63.5, -63.5, 0, 0.25, 0.5, -1]);
  expect([...biases]).toEqual([-1, 2]);
});

test('a file of another network is refused, whether it is too short or too long', () => {
  expect(() => layerReader(text(written()), 'some.json').next(2, 4)).toThrow('some.json has 22 bytes');
  expect(() => layerReader(text(written()), 'some.json').next(9, 3)).toThrow(RangeError);
  const left = layerReader(text(Uint8Array.from([...written(), 0])), 'some.json');
  left.next(2, 3);
  expect(() => left.end()).toThrow('some.json has 23 bytes; the network has 22');
});
