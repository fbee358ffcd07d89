// The DMX node stand-in as a process of its own: `hovlix serve --demo` starts it and is told twice a second what arrives.

import { startNode } from './node';

const [sacn, artnet] = process.argv.slice(2).map(Number);
startNode('127.0.0.1', { sacn: sacn || 5568, artnet: artnet || 6454 }).then(
  (node) => {
    setInterval(() => process.send?.({ type: 'report', report: node.report() }), 500);
  },
  (error: Error) => {
    process.send?.({ type: 'failed', why: error.message });
    process.exitCode = 1;
  },
);
process.on('disconnect', () => process.exit());
// A Ctrl-C in the terminal reaches both processes; the server is the one that ends this one.
process.on('SIGINT', () => undefined);
