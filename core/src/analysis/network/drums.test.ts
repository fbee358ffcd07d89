import golden from './drum-golden.json';
import { drumOdds, strokesOf } from '.';

const bytes = Uint8Array.from(Buffer.from(golden.bands, 'base64'));

test('the network of drums says what the trainer’s own says, to 1e-4', async () => {
  const said = (await drumOdds(bytes, async () => 'go-on'))!;
  for (const drum of ['kick', 'snare', 'hat'] as const) {
    expect(said[drum].length).toBe(golden[drum].length);
    golden[drum].forEach((value, i) => expect(Math.abs(said[drum][i]! - value)).toBeLessThan(1e-4));
  }
});

test('it stops where the host says so, and an empty recording has no strokes', async () => {
  expect(await drumOdds(bytes, async () => 'stop')).toBeUndefined();
  const strokes = strokesOf((await drumOdds(new Uint8Array(), async () => 'go-on'))!);
  expect(strokes.kick.length + strokes.snare.length + strokes.hat.length).toBe(0);
});

test('a stroke is where the odds have their top, between two frames where they lean', () => {
  const odds = (at: number) => Float32Array.from({ length: 100 }, (_, t) => 4 - 3 * Math.abs(t - at));
  const { kick, snare } = strokesOf({ kick: odds(50), snare: odds(30.25), hat: new Float32Array(100).fill(-5) });
  expect([...kick]).toEqual([0.5]);
  expect(snare[0]).toBeGreaterThan(0.3);
  expect(snare[0]).toBeLessThan(0.305);
});
