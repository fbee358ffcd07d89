// The Babel plugin that builds use: what is named in an import is taken from the file that has it.

import { describe, expect, test } from '@jest/globals';
import { transformSync } from '@babel/core';
import { join } from 'path';
import straight from '../../metro/straight-imports';

const FROM = join(process.cwd(), 'src/features/songs/Sheet.tsx');

function built(code) {
  const options = { filename: FROM, babelrc: false, configFile: false, plugins: [straight] };
  return transformSync(code, { ...options, parserOpts: { plugins: ['typescript', 'jsx'] } }).code;
}

describe('imports of a build', () => {
  test('each name comes from its own file, under the name it has here', () => {
    const code = built("import { barsAt as at, curveAt } from '@hovlix/core/song';");
    expect(code).toContain('import { barsAt as at } from "../../../../core/src/song/bars";');
    expect(code).toMatch(/import \{ curveAt \} from "\.\.\/\.\.\/\.\.\/\.\.\/core\/src\/song\/[a-z-]+";/);
    expect(code).not.toContain('@hovlix/core');
  });

  test('types stay types', () => {
    expect(built("import { type Song, barsAt } from '@hovlix/core/song';")).toContain('import { type Song } from');
    expect(built("import type { Song } from '@hovlix/core/song';")).toContain('import type { Song } from');
  });

  test.each([
    ["import '@hovlix/core/song';"],
    ["import * as song from '@hovlix/core/song';"],
    ["import { useState } from 'react';"],
    ["import { nothingLikeThis } from './not-there';"],
  ])('%s is left as it is', (code) => {
    expect(built(code).replaceAll('"', "'")).toBe(code);
  });
});
