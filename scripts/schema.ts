// Writes docs/show.schema.json: the JSON Schema of show.json inside a .hovlix file. Run: npm run schema

import { writeFileSync } from 'node:fs';
import { z } from 'zod';
import { Show } from '@hovlix/core/show';

const schema = z.toJSONSchema(Show, { io: 'input', unrepresentable: 'any', reused: 'ref' });
writeFileSync(new URL('../docs/show.schema.json', import.meta.url), JSON.stringify(schema, null, 1) + '\n');
