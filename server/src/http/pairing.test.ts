import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pairing } from './pairing';

const kept = () => join(mkdtempSync(join(tmpdir(), 'hovlix-pairing-')), 'devices.json');
const wrongFor = (code: string) => (code === '000000' ? '111111' : '000000');

test('the code lets one device in, once; it is remembered over a restart and can be sent away', () => {
  const file = kept();
  const door = pairing(file, () => 1000);
  const { code } = door.code();
  expect(code).toMatch(/^\d{6}$/);
  const joined = door.attempt(`${code.slice(0, 3)} ${code.slice(3)}`, ' Ana’s phone ', '10.0.0.9');
  if (!joined.ok) throw new Error('refused');
  expect(joined.cookie).toMatch(/^hovlix_device=.*HttpOnly/);
  expect(joined.device.name).toBe('Ana’s phone');
  // The same code does not work twice.
  expect(door.attempt(code, 'Other', '10.0.0.10').ok).toBe(false);
  const cookie = joined.cookie.split(';')[0]!;
  const later = pairing(file, () => 2000);
  expect(later.deviceOf(cookie)?.name).toBe('Ana’s phone');
  expect(later.revoke(joined.device.id)).toBe(true);
  expect(later.deviceOf(cookie)).toBeUndefined();
  expect(pairing(file, () => 3000).deviceOf(cookie)).toBeUndefined();
});

test('what is kept is only its owner’s to read, and holds no code', () => {
  const file = kept();
  const door = pairing(file, () => 1000);
  const { code } = door.code();
  door.attempt(code, 'Phone', 'a');
  expect(statSync(file).mode & 0o077).toBe(0);
  expect(readFileSync(file, 'utf8')).not.toContain(code);
});

test('what the next device may do is kept, and a file that cannot be read is set aside, and told', () => {
  const file = kept();
  pairing(file, () => 0).grantTo('viewer');
  const later = pairing(file, () => 0);
  const joined = later.attempt(later.code().code, 'Phone', 'a');
  expect(joined).toMatchObject({ device: { may: 'viewer' } });
  writeFileSync(file, '{"secret":');
  const told: string[] = [];
  const anew = pairing(
    file,
    () => 0,
    () => undefined,
    (why) => told.push(why),
  );
  expect([anew.devices(), anew.grant()]).toEqual([[], 'player']);
  expect(told).toEqual([expect.stringContaining(`set aside as ${file}.bad`)]);
  expect(readFileSync(`${file}.bad`, 'utf8')).toBe('{"secret":');
});

test('devices that cannot be kept join all the same, and it is said', () => {
  const file = join(kept(), 'devices.json');
  writeFileSync(join(file, '..'), 'no folder');
  const said: (string | null)[] = [];
  const door = pairing(
    file,
    () => 0,
    (why) => said.push(why),
  );
  expect(door.attempt(door.code().code, 'Phone', 'a').ok).toBe(true);
  expect(said).toEqual([expect.stringContaining('a file is in its place')]);
});

test('a cookie made up, changed, or of another Hovlix is nobody', () => {
  const [door, other] = [pairing(undefined, () => 0), pairing(undefined, () => 0)];
  const joined = door.attempt(door.code().code, 'Phone', 'a');
  if (!joined.ok) throw new Error('refused');
  const cookie = joined.cookie.split(';')[0]!;
  expect(door.deviceOf(cookie)).toBeDefined();
  expect(other.deviceOf(cookie)).toBeUndefined();
  expect(door.deviceOf(`hovlix_device=${joined.device.id}`)).toBeUndefined();
  expect(door.deviceOf(cookie.slice(0, -2) + 'xx')).toBeUndefined();
  expect(door.deviceOf('hovlix_device=%E0%A4%A')).toBeUndefined();
  expect(door.deviceOf(undefined)).toBeUndefined();
});

test('wrong codes: two slips are free, then each wait doubles, the tenth locks out for a quarter of an hour', () => {
  let now = 0;
  const door = pairing(undefined, () => now);
  const waits: number[] = [];
  for (let i = 0; i < 10; i++) {
    const answer = door.attempt(wrongFor(door.code().code), 'x', '10.0.0.66');
    if (answer.ok) throw new Error('let in');
    expect(answer.why).toBe('wrong');
    waits.push(answer.waitSeconds);
    now += answer.waitSeconds * 1000;
  }
  expect(waits).toEqual([0, 0, 1, 2, 4, 8, 16, 32, 64, 900]);
  now -= 1000;
  // Even the right code has to wait, but not for others.
  expect(door.attempt(door.code().code, 'x', '10.0.0.66')).toMatchObject({ ok: false, why: 'wait' });
  expect(door.attempt(door.code().code, 'x', '10.0.0.7').ok).toBe(true);
});

test('guessed at from many addresses the code stays, and all take turns; grown old it changes', () => {
  let now = 0;
  const door = pairing(undefined, () => now);
  const first = door.code();
  for (let i = 0; i < 30; i++) door.attempt(wrongFor(first.code), 'x', `10.0.1.${i}`);
  expect(door.code()).toBe(first);
  // A try that came too soon is not one: not even the right code is looked at.
  expect(door.attempt(first.code, 'Ada', '10.0.2.1')).toEqual({ ok: false, why: 'wait', waitSeconds: 2 });
  // However many ask at once, one in two seconds is listened to.
  let heard = 0;
  for (; now < 60_000; now += 100) {
    const answer = door.attempt(wrongFor(first.code), 'x', `guest ${now}`);
    if (!answer.ok && answer.why === 'wrong') heard++;
  }
  expect(heard).toBeLessThanOrEqual(30);
  now += 2000;
  expect(door.attempt(first.code, 'Ada', '10.0.2.1')).toMatchObject({ ok: true });
  const second = door.code();
  now = second.until;
  expect(door.code()).not.toBe(second);
});

test('a name is a name: no markup of control characters, never empty, never endless', () => {
  const door = pairing(undefined, () => 0);
  const named = (name: string) => {
    const answer = door.attempt(door.code().code, name, 'a');
    return answer.ok ? answer.device.name : null;
  };
  expect(named('\u0000\u0007')).toBe('Device 1');
  expect(named('x'.repeat(80))).toHaveLength(40);
  expect(named('Küche\n2')).toBe('Küche2');
});
