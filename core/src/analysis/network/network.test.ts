import golden from './golden.json';
import { featureTaker } from '../features';
import { activationsOf, NETWORK_BANDS } from '.';

const bytes = Uint8Array.from(Buffer.from(golden.bands, 'base64'));

test('the network says what the trainer’s own says, to 1e-4', async () => {
  const said = await activationsOf(bytes, async () => 'go-on');
  for (const output of ['beat', 'downbeat', 'section'] as const) {
    expect(said![output].length).toBe(golden[output].length);
    golden[output].forEach((value, i) => expect(Math.abs(said![output][i]! - value)).toBeLessThan(1e-4));
  }
});

test('it stops where the host says so, and an empty recording says nothing', async () => {
  expect(await activationsOf(bytes, async () => 'stop')).toBeUndefined();
  expect((await activationsOf(new Uint8Array(), async () => 'go-on'))!.frames).toBe(0);
});

test('the bands of a sweep with clicks are the trainer’s, within a hundredth', () => {
  const rate = 44100;
  const signal = Float32Array.from({ length: rate }, (_, n) => {
    const at = n / rate;
    return 0.5 * Math.sin(2 * Math.PI * (200 * at + 3000 * at ** 2)) + (n % 11025 === 0 ? 0.4 : 0);
  });
  const taker = featureTaker();
  taker.take([signal.subarray(0, 20000)], rate);
  taker.take([signal.subarray(20000)], rate);
  const { bands } = taker.end();
  golden.heard.forEach((row, i) =>
    row.forEach((value, band) =>
      expect(Math.abs(bands[(10 + 10 * i) * NETWORK_BANDS + band]! - value)).toBeLessThanOrEqual(1),
    ),
  );
});
