// What the plan is drawn of, from below: the room, what stays, and what goes with a finger.

import type { Aim, Fixture, Patched, Point, Shape } from '@hovlix/core/rig';
import { useTints } from '../../../ui/palette';
import { cornerOf } from './handles';
import type { Layers } from './layers';
import { AimMark, LampMark, ShapeMark, Wedge, type Look } from './marks';
import { upOf, type Scene } from './scene';
import { WORDS } from './words';

const OVER_ALL = { position: 'absolute', inset: 0 } as const;

/** The picture of the room, its shapes, and the floor. */
export function Ground({ scene, shapes }: { readonly scene: Scene; readonly shapes: readonly Shape[] }) {
  const { rig, mode, chosen, view, size, look } = scene;
  const { width, height } = size;
  const { picture } = rig;
  const above = look.from === 'above';
  return (
    <svg width={width} height={height} style={OVER_ALL} aria-hidden>
      {picture && above && (
        <image
          href={picture.data}
          x={look.x(picture.x - picture.width / 2)}
          y={look.y(picture.y + (picture.width * picture.aspect) / 2)}
          width={picture.width * view.scale}
          height={picture.width * picture.aspect * view.scale}
          opacity={0.55}
        />
      )}
      {shapes.map((shape) => (
        <ShapeMark key={shape.id} shape={shape} look={look} chosen={mode === 'room' && chosen.has(shape.id)} />
      ))}
      {!above && <line x1={0} x2={width} y1={look.y(0)} y2={look.y(0)} stroke={look.palette.line} strokeWidth={2} />}
      {above && (
        <text
          x={width / 2}
          y={height - 10}
          fill={look.palette.quiet}
          fontSize={13}
          textAnchor="middle"
          fontFamily="Figtree"
        >
          audience
        </text>
      )}
    </svg>
  );
}

type MarksProps = {
  readonly scene: Scene;
  readonly lamps: readonly Patched[];
  readonly held: ReadonlySet<string>;
  readonly tintOf: (fixture: string) => number | undefined;
  readonly onPress: (id: string) => void;
};

function Lamps({ scene: { look, chosen }, lamps, held, tintOf, onPress }: MarksProps) {
  const tints = useTints();
  const colourOf = (id: string) => {
    const tint = tintOf(id);
    return tint === undefined ? look.palette.faint : tints[tint]!;
  };
  return (
    <>
      {lamps.map((lamp) => (
        <Wedge key={lamp.fixture.id} lamp={lamp} look={look} colour={colourOf(lamp.fixture.id)} />
      ))}
      {lamps.map((lamp) => (
        <LampMark
          key={lamp.fixture.id}
          lamp={lamp}
          look={look}
          colour={colourOf(lamp.fixture.id)}
          chosen={chosen.has(lamp.fixture.id)}
          held={held.has(lamp.fixture.id)}
          onPress={onPress}
        />
      ))}
    </>
  );
}

type Arrow = { readonly lamp: Fixture; readonly to: Point } | undefined;
type StillProps = MarksProps & { readonly layers: Layers; readonly arrow: Arrow };

/** What stays where it is, the lines a drag snaps to, the line one draws, and the level one drags. */
export function Still({ layers, arrow, ...marks }: StillProps) {
  const { aims, mode, chosen, size, look } = marks.scene;
  const { all, guides, lasso, readout, arrow: line } = layers;
  const { doing, text } = look.palette;
  return (
    <svg
      width={size.width}
      height={size.height}
      style={OVER_ALL}
      role="group"
      aria-label={look.from === 'above' ? WORDS.stageFromAbove : WORDS.stageFromAudience}
    >
      <g ref={all}>
        <Aims aims={aims.filter(({ id }) => mode !== 'aims' || !chosen.has(id))} look={look} faint={mode !== 'aims'} />
        <Lamps {...marks} />
        <path ref={guides} stroke={doing} strokeWidth={1} strokeDasharray="3 4" />
        {arrow && <ArrowLine line={line} scene={marks.scene} arrow={arrow} />}
        <polygon ref={lasso} fill={doing} fillOpacity={0.12} stroke={doing} strokeWidth={1.5} />
        <text
          ref={readout}
          fill={text}
          fontSize={18}
          fontWeight={700}
          textAnchor="middle"
          fontFamily="Spline Sans Mono"
        />
      </g>
    </svg>
  );
}

type MovingProps = MarksProps & {
  readonly layer: Layers['moving'];
  readonly arrow: Arrow;
  readonly shape: Shape | undefined;
};

/** A layer of its own, so that a drag repaints nothing. */
export function Moving({ layer, arrow, shape, ...marks }: MovingProps) {
  const { aims, mode, chosen, size, look } = marks.scene;
  const corner = shape && cornerOf(shape, look.from);
  return (
    <svg
      ref={layer}
      width={size.width}
      height={size.height}
      role="group"
      aria-label={WORDS.chosen}
      style={{
        ...OVER_ALL,
        overflow: 'visible',
        transformOrigin: '0 0',
        willChange: 'transform',
        pointerEvents: 'none',
      }}
    >
      <Lamps {...marks} />
      {mode === 'aims' && <Aims aims={aims.filter(({ id }) => chosen.has(id))} look={look} chosen />}
      {arrow && <Handle look={look} x={arrow.to.x} y={arrow.to[upOf(marks.scene)]} />}
      {corner && <Handle look={look} {...corner} />}
    </svg>
  );
}

type AimsProps = {
  readonly aims: readonly Aim[];
  readonly look: Look;
  readonly chosen?: boolean;
  readonly faint?: boolean;
};

const Aims = ({ aims, look, chosen = false, faint = false }: AimsProps) =>
  aims.map((aim) => <AimMark key={aim.id} aim={aim} look={look} chosen={chosen} faint={faint} />);

const Handle = ({ look, x, y }: { readonly look: Look; readonly x: number; readonly y: number }) => (
  <circle cx={look.x(x)} cy={look.y(y)} r={9} fill={look.palette.doing} aria-hidden />
);

type ArrowProps = {
  readonly line: Layers['arrow'];
  readonly scene: Scene;
  readonly arrow: NonNullable<Arrow>;
};

function ArrowLine({ line, scene, arrow: { lamp, to } }: ArrowProps) {
  const { look } = scene;
  const up = upOf(scene);
  return (
    <line
      ref={line}
      x1={look.x(lamp.mount.x)}
      y1={look.y(lamp.mount[up])}
      x2={look.x(to.x)}
      y2={look.y(to[up])}
      stroke={look.palette.doing}
      strokeWidth={2}
    />
  );
}
