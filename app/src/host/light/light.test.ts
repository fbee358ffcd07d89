import { light } from './light';
import type { FromLight, ToLight } from './light-messages';

/** The page's side with a worker that only writes down what it is told. */
function page() {
  const told: ToLight[] = [];
  const worker = {
    postMessage: (message: ToLight) => told.push(message),
    onmessage: null as ((event: object) => void) | null,
  };
  const made = light(worker as unknown as Worker);
  const say = (data: FromLight) => worker.onmessage!({ data });
  const types = () => told.map(({ type }) => type);
  return { made, say, told, types };
}

function canvas(more: object = {}) {
  let pictures = 0;
  const context = new Proxy(
    {},
    {
      get: (_, name) =>
        name === 'setTransform'
          ? () => void pictures++
          : String(name).startsWith('create')
            ? () => ({ addColorStop: () => undefined })
            : () => undefined,
      set: () => true,
    },
  );
  const element = { width: 0, height: 0, isConnected: true, getContext: () => context, ...more };
  return { element: element as unknown as HTMLCanvasElement, pictures: () => pictures };
}

test('a canvas is given to the worker once, comes back by its number, and is forgotten when it is gone', () => {
  jest.useFakeTimers();
  const { made, told, types } = page();
  const away = {} as OffscreenCanvas;
  const { element } = canvas({ transferControlToOffscreen: () => away });
  made.paint(element).stop();
  jest.runAllTimers();
  const again = made.paint(element);
  expect(told[0]).toEqual({ type: 'stage', surface: 1, canvas: away });
  expect(told.at(-1)).toEqual({ type: 'stage', surface: 1 });
  again.mark(['a']);
  (element as { isConnected: boolean }).isConnected = false;
  again.stop();
  jest.runAllTimers();
  expect(types()).toEqual(['stage', 'stage-off', 'stage', 'stage-marked', 'stage-off', 'stage-gone']);
  jest.useRealTimers();
});

test('where no canvas can be given away, the page paints it, with each frame of the worker', async () => {
  const { made, say, types } = page();
  const { element, pictures } = canvas();
  const painted = made.paint(element);
  painted.size(390, 150, 1);
  const frame = () => new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())));
  const paintedTimes = async (wanted: number) => {
    while (pictures() < wanted) await frame();
  };
  await paintedTimes(1);
  expect(types()).toEqual(['frames']);
  say({ type: 'heads', heads: [], shapes: [], universes: [], notes: [] });
  say({ type: 'frame', lamps: new Float32Array(0) });
  await paintedTimes(2);
  painted.stop();
  expect(types().at(-1)).toBe('frames');
  say({ type: 'frame', lamps: new Float32Array(0) });
  await frame();
  expect(pictures()).toBe(2);
});
