import { NO_CONNECTIONS, type Connections } from '@hovlix/core/connect';
import type { FromScreen } from '@hovlix/core/live';
import { id, universe } from '@hovlix/core/units';
import type { Conducting } from './conduct';
import { connectionsDocument } from './connections-document';

function made(connections: Connections | null = NO_CONNECTIONS) {
  const said: FromScreen[] = [];
  let hear: (connections: unknown, revision: number) => void = () => undefined;
  const conducting = {
    say: (message: FromScreen) => said.push(message),
    onConnections: (take: typeof hear) => (hear = take),
  } as unknown as Conducting;
  const document = connectionsDocument(conducting);
  if (connections) hear(connections, 5);
  return { document, said, hear };
}

const row = {
  id: id<'Output'>('a'),
  universe: universe(1),
  on: true,
  delayMs: 0,
  way: { protocol: 'sacn', to: 'multicast', network: null, number: 1, priority: 100 },
} as const;

test('an edit shows at once, goes to the conductor with its revision, and can be taken back and made again', () => {
  const { document, said } = made();
  document.make({ type: 'put-output', row });
  expect(document.store.getState()).toMatchObject({
    revision: 6,
    canUndo: true,
    connections: { outputs: [{ id: 'a' }] },
  });
  document.undo();
  expect(document.store.getState().connections?.outputs).toEqual([]);
  document.redo();
  expect(document.store.getState().connections?.outputs).toHaveLength(1);
  expect(said.map((message) => message.type === 'connections-edit' && message.revision)).toEqual([5, 6, 7]);
});

test('what changes nothing leaves no step and no message', () => {
  const { document, said } = made();
  document.make({ type: 'remove-output', output: id('gone') });
  document.make({ type: 'choose-sync', sync: true });
  expect(said).toEqual([]);
  expect(document.store.getState().canUndo).toBe(false);
});

test('without a server there is nothing to edit, and rubbish from it is not taken', () => {
  const { document, said } = made(null);
  document.make({ type: 'put-output', row });
  document.undo();
  expect(said).toEqual([]);
  const other = made();
  other.hear({ format: 'else' }, 9);
  expect(other.document.store.getState().revision).toBe(5);
});

test('the answer to an earlier edit does not take a later one off the screen', () => {
  const { document, hear } = made();
  document.make({ type: 'name-source', sourceName: 'One' });
  document.make({ type: 'name-source', sourceName: 'Two' });
  hear({ ...NO_CONNECTIONS, sourceName: 'One' }, 6);
  expect(document.store.getState().connections?.sourceName).toBe('Two');
  hear({ ...NO_CONNECTIONS, sourceName: 'Two' }, 7);
  expect(document.store.getState()).toMatchObject({ revision: 7, connections: { sourceName: 'Two' } });
});
