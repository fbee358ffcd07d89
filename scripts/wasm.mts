// Makes core/src/analysis/network/kernel.ts of dense.wat: npm run wasm
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const folder = fileURLToPath(new URL('../core/src/analysis/network/', import.meta.url));

/** The bytes of dense.wat as WebAssembly. */
async function kernelOf(text: string): Promise<Uint8Array> {
  const module = (await wabt()).parseWat('dense.wat', text, { simd: true });
  try {
    return module.toBinary({}).buffer;
  } finally {
    module.destroy();
  }
}

const bytes = await kernelOf(readFileSync(`${folder}dense.wat`, 'utf8'));
const text = Buffer.from(bytes).toString('base64');
const lines = text.match(/.{1,100}/g)!.map((line) => `  '${line}'`);
writeFileSync(
  `${folder}kernel.ts`,
  `// Made of dense.wat by \`npm run wasm\`.\n\n/** WebAssembly as base64. */\nexport const KERNEL =\n${lines.join(' +\n')};\n`,
);
console.log(`${bytes.length} bytes`);
