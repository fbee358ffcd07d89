import { ConnectCommand, editConnections, NO_CONNECTIONS, type Connections } from '@hovlix/core/connect';
import type { FromScreen } from '@hovlix/core/live';
import { id, universe } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import { connectionsDocument } from './connections-document';

/** A screen, and a conductor that answers when it is told to. */
function made(connections: Connections | null = NO_CONNECTIONS) {
  const waiting: ConnectCommand[] = [];
  let truth = connections ?? NO_CONNECTIONS;
  let hear: (connections: unknown) => void = () => undefined;
  const conducting = {
    say: (message: FromScreen) =>
      message.type === 'connections-edit' && waiting.push(ConnectCommand.parse(message.command)),
    onConnections: (take: typeof hear) => (hear = take),
  } as unknown as Conducting;
  const document = connectionsDocument(conducting);
  if (connections) hear(connections);
  const does = (command: ConnectCommand) => {
    truth = editConnections(truth, command).connections;
    hear(truth);
  };
  const answer = () => waiting.splice(0).forEach(does);
  return { document, waiting, answer, does, truth: () => truth, shown: () => document.store.getState().connections };
}

const row = {
  id: id<'Output'>('a'),
  universe: universe(1),
  on: true,
  delayMs: 0,
  way: { protocol: 'sacn', to: 'multicast', network: null, number: 1, priority: 100 },
} as const;

test('an edit shows at once, goes to the conductor, and can be taken back and made again', () => {
  const { document, waiting, answer, truth } = made();
  document.make({ type: 'put-output', row });
  expect(document.store.getState()).toMatchObject({ canUndo: true, connections: { outputs: [{ id: 'a' }] } });
  expect(waiting).toMatchObject([{ type: 'put-output' }]);
  answer();
  document.undo();
  answer();
  expect(truth().outputs).toEqual([]);
  document.redo();
  answer();
  expect(truth().outputs).toMatchObject([{ id: 'a' }]);
});

test('what finds nothing to do is not sent, and leaves no step', () => {
  const { document, waiting } = made();
  document.make({ type: 'remove-output', output: id('gone') });
  expect([waiting, document.store.getState().canUndo]).toEqual([[], false]);
});

test('only one’s own edits are taken back, and where somebody changed the same since, that stays', () => {
  const { document, answer, does, truth } = made();
  document.make({ type: 'put-output', row });
  answer();
  does({ type: 'put-output', row: { ...row, delayMs: 20 } });
  does({ type: 'choose-sync', sync: true });
  document.undo();
  answer();
  expect(truth()).toMatchObject({ sync: true, outputs: [{ id: 'a', delayMs: 20 }] });
});

test('an answer to an earlier edit does not undo a later one', () => {
  const { document, waiting, does, answer, shown } = made();
  document.make({ type: 'name-source', sourceName: 'One' });
  document.make({ type: 'name-source', sourceName: 'Two' });
  does(waiting.shift()!);
  expect(shown()?.sourceName).toBe('Two');
  answer();
  expect(shown()?.sourceName).toBe('Two');
});

test('an undo that was offered takes back its own edit', () => {
  const { document, answer, truth } = made();
  document.make({ type: 'name-source', sourceName: 'One' });
  const back = document.takingBack();
  document.make({ type: 'choose-sync', sync: true });
  back();
  answer();
  expect(truth()).toMatchObject({ sync: true, sourceName: NO_CONNECTIONS.sourceName });
});
