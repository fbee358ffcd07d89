import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import wabt from 'wabt';
import { DENSE, PATHS, SPECTRA } from './kernels';

test.each(Object.entries({ dense: DENSE, paths: PATHS, spectra: SPECTRA }))(
  'the kernel is the one that %s.wat describes',
  async (name, kernel) => {
    const text = readFileSync(join(__dirname, `${name}.wat`), 'utf8');
    const module = (await wabt()).parseWat(`${name}.wat`, text, { simd: true });
    expect(Buffer.from(module.toBinary({}).buffer).toString('base64')).toBe(kernel);
    module.destroy();
  },
);
