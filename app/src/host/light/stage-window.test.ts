import { stageWindow } from './stage-window';
import type { StageHead } from './light-messages';

/** A canvas that counts its pictures, and a screen whose pictures the test calls for. */
function host() {
  const clock = { now: 10 };
  const asked: (() => void)[] = [];
  const window = stageWindow({
    clock: () => clock.now,
    nextFrame: (draw) => asked.push(draw),
    afterwards: (done) => done(),
  });
  const screen = () => {
    clock.now += 1 / 60;
    for (const draw of asked.splice(0)) draw();
  };
  return { window, screen, asked };
}

function canvas() {
  let pictures = 0;
  const nothing = { addColorStop: () => undefined };
  const context = new Proxy(
    {},
    {
      get(_, name) {
        if (name === 'setTransform') return () => void pictures++;
        return String(name).startsWith('create') ? () => nothing : () => undefined;
      },
      set: () => true,
    },
  );
  const made = { width: 0, height: 0, getContext: () => context } as unknown as OffscreenCanvas;
  return { made, pictures: () => pictures };
}

const size = { type: 'stage-size', width: 390, height: 150, scale: 2 } as const;
const head = {
  kind: 'par',
  beamAngle: 25,
  output: 1,
  cell: 0,
  cells: 1,
  mount: { x: 0, y: 0, z: 3, rotX: 0, rotY: 0, rotZ: 0 },
  patterns: [],
  fixture: 'a',
  number: 1,
} as unknown as StageHead;

test('it is painted once for each new light, in pixels of the screen', () => {
  const { window, screen, asked } = host();
  const { made, pictures } = canvas();
  window.hear({ type: 'stage', surface: 1, canvas: made });
  window.hear(size);
  screen();
  expect([pictures(), made.width, made.height]).toEqual([1, 780, 300]);
  screen();
  expect([pictures(), asked.length]).toEqual([1, 0]);
  window.lit(new Float32Array(0));
  window.lit(new Float32Array(0));
  screen();
  expect(pictures()).toBe(2);
});

test('lamps whose light is not known yet are not shown dark', () => {
  const { window, screen } = host();
  const { made, pictures } = canvas();
  window.hear({ type: 'stage', surface: 1, canvas: made });
  window.hear(size);
  window.take([head], []);
  screen();
  expect(pictures()).toBe(0);
  window.lit(new Float32Array(9));
  screen();
  expect(pictures()).toBe(1);
});

test('a stage that nobody looks at is not painted; the same canvas can come back, and another can take its place', () => {
  const { window, screen } = host();
  const [one, other] = [canvas(), canvas()];
  window.hear({ type: 'stage', surface: 1, canvas: one.made });
  window.hear(size);
  screen();
  window.hear({ type: 'stage-off', surface: 1 });
  expect(window.open()).toBe(false);
  window.lit(new Float32Array(0));
  screen();
  expect(one.pictures()).toBe(1);
  window.hear({ type: 'stage', surface: 1 });
  screen();
  expect(one.pictures()).toBe(2);
  // The next one comes before the last is said to be off.
  window.hear({ type: 'stage', surface: 2, canvas: other.made });
  window.hear({ type: 'stage-off', surface: 1 });
  window.hear({ type: 'stage-gone', surface: 1 });
  screen();
  expect([one.pictures(), other.pictures(), window.open()]).toEqual([2, 1, true]);
});
