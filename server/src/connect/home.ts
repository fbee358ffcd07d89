// Where this computer keeps what belongs to it and not to a show: outputs, joined phones, its name on the wire.

import { homedir } from 'node:os';
import { join } from 'node:path';

export function homeFolder(asked?: string): string {
  return asked ?? process.env['HOVLIX_HOME'] ?? join(homedir(), '.hovlix');
}
