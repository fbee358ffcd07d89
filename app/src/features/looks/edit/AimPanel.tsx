// Where heads point: a named place, a place on the plan, or by hand; all alike, fanned out, or each its own.

import type { AimValue, Drive } from '@hovlix/core/light';
import { rigInUse } from '@hovlix/core/show';
import { id } from '@hovlix/core/units';
import { useHovlix, useShow } from '../../../host/hovlix';
import { freshId } from '../../../host/fresh-id';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Column, Quiet, Row } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import { SteerPad } from '../../../ui/SteerPad';
import { DriveForm } from './DriveForm';
import type { PanelProps } from './panel-props';
import { WORDS } from './words';

const STRAIGHT: AimValue = { pan: 0, tilt: 0 };

export function AimPanel({ lamps, heard, onSay }: PanelProps) {
  const heads = lamps.filter(({ profile }) => profile.panRange > 0);
  if (heads.length === 0) return <Quiet>{WORDS.chosenLampsDo}</Quiet>;
  const turning = heads[0]!.profile;
  const say = (aim: Drive<AimValue> | undefined) => onSay({ aim }, 'aim');
  return (
    <Column gap={20}>
      <DriveForm
        label={WORDS.aim}
        drive={heard.aim}
        rest={STRAIGHT}
        lamps={heads.map(({ fixture }) => fixture.name)}
        onSay={say}
      >
        {(value, title, onChange) => <Aiming title={title} value={value} turning={turning} onChange={onChange} />}
      </DriveForm>
      {heads.length > 1 && <FanOut drive={heard.aim} onSay={say} />}
    </Column>
  );
}

type AimingProps = {
  readonly title: string;
  readonly value: AimValue;
  readonly turning: { readonly panRange: number; readonly tiltRange: number };
  readonly onChange: (value: AimValue) => void;
};

function Aiming({ title, value, turning, onChange }: AimingProps) {
  const aims = useShow((show) => show.aims) ?? [];
  const turn = 'aim' in value ? null : value;
  return (
    <Column gap={12}>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.at(title)}>
        {aims.map(({ id, name }) => (
          <Chip
            key={id}
            small
            name={name}
            on={'aim' in value && value.aim === id}
            onPress={() => onChange({ aim: id })}
          />
        ))}
        <Chip small name={WORDS.byHand} on={turn !== null} onPress={() => onChange(turn ?? STRAIGHT)} />
      </Row>
      {turn ? (
        <SteerPad turn={turn} profile={turning} onTurn={onChange} />
      ) : (
        <AimPlan value={value} onChange={onChange} />
      )}
    </Column>
  );
}

/** The stage from above: a tap on a place points there; a tap beside all of them makes a new one. */
function AimPlan({ value, onChange }: Pick<AimingProps, 'value' | 'onChange'>) {
  const app = useHovlix();
  const palette = usePalette();
  const show = useShow((one) => one);
  if (!show) return null;
  const rig = rigInUse(show);
  const [left, right, back, front] = [-7, 7, 7, -4];
  const add = (x: number, y: number) => {
    const aim = { id: id<'Aim'>(freshId()), name: WORDS.aimNamed(show.aims.length + 1), x, y, z: 1.2 };
    app.document.make({ type: 'add-aim', aim });
    onChange({ aim: aim.id });
  };
  return (
    <Column gap={4}>
      <svg
        viewBox={`${left} ${-back} ${right - left} ${back - front}`}
        role="img"
        aria-label={WORDS.stageFromAbove}
        style={{ width: '100%', maxHeight: 240, background: palette.sunken, borderRadius: 14, cursor: 'crosshair' }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const scale = Math.max((right - left) / box.width, (back - front) / box.height);
          const x = (event.clientX - box.left - box.width / 2) * scale + (left + right) / 2;
          const y = -((event.clientY - box.top - box.height / 2) * scale) + (back + front) / 2;
          const nearest = show.aims
            .map((aim) => ({ aim, far: Math.hypot(aim.x - x, aim.y - y) }))
            .sort((a, b) => a.far - b.far)[0];
          if (nearest && nearest.far < 0.8) onChange({ aim: nearest.aim.id });
          else add(Math.round(x * 10) / 10, Math.round(y * 10) / 10);
        }}
      >
        {rig.shapes.map(({ id, x, y, width, depth, turn, kind }) => (
          <rect
            key={id}
            x={x - width / 2}
            y={-y - depth / 2}
            width={width}
            height={depth}
            transform={`rotate(${-turn} ${x} ${-y})`}
            fill={kind === 'stage' ? palette.raised : 'none'}
            stroke={palette.line}
            strokeWidth={0.05}
          />
        ))}
        <line x1={left} y1={0} x2={right} y2={0} stroke={palette.line} strokeWidth={0.05} strokeDasharray="0.3 0.2" />
        {show.aims.map(({ id, name, x, y }) => {
          const on = 'aim' in value && value.aim === id;
          return (
            <g key={id}>
              <circle cx={x} cy={-y} r={on ? 0.42 : 0.28} fill={on ? palette.doing : palette.quiet} />
              <text x={x} y={-y - 0.55} textAnchor="middle" fontSize={0.5} fontFamily="Figtree" fill={palette.text}>
                {name}
              </text>
            </g>
          );
        })}
      </svg>
      <Quiet>{WORDS.tapPlaceTap}</Quiet>
    </Column>
  );
}

/** Beams drawn apart around where they point. */
function FanOut({
  drive,
  onSay,
}: {
  readonly drive: Drive<AimValue> | undefined;
  readonly onSay: (drive: Drive<AimValue>) => void;
}) {
  const ends =
    drive?.type === 'fan' && !('aim' in drive.from) && !('aim' in drive.to)
      ? ([drive.from, drive.to] as const)
      : undefined;
  const held = drive?.type === 'hold' && !('aim' in drive.value) ? drive.value : undefined;
  const middle = ends ? { pan: (ends[0].pan + ends[1].pan) / 2, tilt: (ends[0].tilt + ends[1].tilt) / 2 } : held;
  if (!middle) return <Quiet>{WORDS.fanBeamsOut}</Quiet>;
  const spread = ends ? ends[1].pan - ends[0].pan : 0;
  return (
    <Slider
      label={WORDS.fanOutPan}
      value={spread}
      low={-180}
      high={180}
      step={2}
      unit="°"
      onChange={(wide) =>
        onSay({
          type: 'fan',
          from: { pan: middle.pan - wide / 2, tilt: middle.tilt },
          to: { pan: middle.pan + wide / 2, tilt: middle.tilt },
          way: drive?.type === 'fan' ? drive.way : 'across',
        })
      }
    />
  );
}
