import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { NO_CONNECTIONS } from '@hovlix/core/connect';
import { AT_REST } from '@hovlix/core/live';
import { testShow } from '../../../core/src/testing/show';
import { until } from '../testing/wait';
import { startThreads } from './thread';

/** A thread that says what it was told, and dies when it is told to watch universe 13. */
const program = join(mkdtempSync(join(tmpdir(), 'hovlix-thread-')), 'thread.mjs');
writeFileSync(
  program,
  `import { parentPort, workerData } from 'node:worker_threads';
   const told = [];
   parentPort.on('message', (message) => {
     if (message.type === 'watch' && message.universes.includes(13)) throw new Error('struck by lightning');
     told.push(message.type === 'state' ? 'state ' + message.state.seq : message.type);
     parentPort.postMessage(workerData.connections ? { type: 'report', report: told } : told);
     if (message.type === 'stop') parentPort.close();
   });`,
);

test('an output that dies is started anew with the show and the state of the moment', async () => {
  const failures: string[] = [];
  const threads = startThreads({
    program: () => pathToFileURL(program),
    cid: new Uint8Array(16),
    connections: NO_CONNECTIONS,
    networks: [],
    resume: () => ({ show: testShow(), sounds: [], state: { ...AT_REST, seq: 41 } }),
    levels: () => undefined,
    failed: (thread, error) => failures.push(`${thread}: ${error.message}`),
  });
  const told = () => (threads.output() as unknown as string[] | null) ?? [];
  threads.tellOutput({ type: 'state', state: AT_REST });
  await until(() => told().includes('state 0'));
  threads.tellOutput({ type: 'watch', universes: [13] });
  await until(() => failures.length > 0);
  // What was watched is what killed it: the new one is told the same and dies as well, and is started yet again.
  threads.tellOutput({ type: 'watch', universes: [] });
  await until(() => told().includes('watch') && told());
  expect(told().slice(0, 4)).toEqual(['sounds', 'show', 'state 41', 'watch']);
  expect(failures[0]).toBe('output: struck by lightning');
  await threads.stop();
});
