// Makes core/src/analysis/kernels/kernels.ts of the `.wat` files beside it: npm run wasm
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const folder = fileURLToPath(new URL('../core/src/analysis/kernels/', import.meta.url));

/** The bytes of a `.wat` file as WebAssembly. */
async function kernelOf(file: string): Promise<Uint8Array> {
  const module = (await wabt()).parseWat(file, readFileSync(folder + file, 'utf8'), { simd: true });
  try {
    return module.toBinary({}).buffer;
  } finally {
    module.destroy();
  }
}

const files = readdirSync(folder).filter((file) => file.endsWith('.wat'));
const parts = ['// Made of the `.wat` files beside it by `npm run wasm`: WebAssembly as base64.'];
for (const file of files) {
  const bytes = await kernelOf(file);
  const lines = Buffer.from(bytes)
    .toString('base64')
    .match(/.{1,100}/g)!
    .map((line) => `  '${line}'`);
  parts.push(`/** Of ${file}. */\nexport const ${file.slice(0, -4).toUpperCase()} =\n${lines.join(' +\n')};`);
  console.log(`${file}: ${bytes.length} bytes`);
}
writeFileSync(`${folder}kernels.ts`, `${parts.join('\n\n')}\n`);
