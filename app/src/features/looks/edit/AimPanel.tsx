// Where heads point: a named place, a place on the plan, or by hand; all alike, fanned out, or each its own.

import { useState } from 'react';
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
import { nearest } from './choose';
import { DriveForm } from './DriveForm';
import type { PanelProps } from './panel-props';
import { pictureOf, reachOf, RoomFromAbove, spotOf } from './RoomFromAbove';
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
  /** The plan stands where the pad was, until something is tapped on it. */
  const [placing, setPlacing] = useState(false);
  const say = (value: AimValue) => {
    setPlacing(false);
    onChange(value);
  };
  return (
    <Column gap={12}>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.at(title)}>
        {aims.map(({ id, name }) => (
          <Chip key={id} small name={name} on={'aim' in value && value.aim === id} onPress={() => say({ aim: id })} />
        ))}
        <Chip small name={WORDS.byHand} on={turn !== null && !placing} onPress={() => say(turn ?? STRAIGHT)} />
        {turn && <Chip small name={WORDS.newAim} on={placing} onPress={() => setPlacing(true)} />}
      </Row>
      {turn && !placing ? (
        <SteerPad turn={turn} profile={turning} onTurn={say} />
      ) : (
        <AimPlan value={value} onChange={say} />
      )}
    </Column>
  );
}

/** What can be pointed at in any room: some of the audience, and the depth of a stage. In metres. */
const AROUND = [
  { x: -7, y: 7, z: 0 },
  { x: 7, y: -4, z: 0 },
];
/** How far beside a place a tap still means it, in pixels. */
const REACH = 24;

/** The stage from above: a tap on a place points there; a tap beside all of them makes a new one. */
function AimPlan({ value, onChange }: Pick<AimingProps, 'value' | 'onChange'>) {
  const app = useHovlix();
  const palette = usePalette();
  const show = useShow((one) => one);
  if (!show) return null;
  const rig = rigInUse(show);
  const { viewBox, pixel } = pictureOf(rig, [...show.aims, ...AROUND]);
  const add = (x: number, y: number) => {
    const aim = { id: id<'Aim'>(freshId()), name: WORDS.aimNamed(show.aims.length + 1), x, y, z: 1.2 };
    app.document.make({ type: 'add-aim', aim });
    onChange({ aim: aim.id });
  };
  return (
    <Column gap={4}>
      <RoomFromAbove
        viewBox={viewBox}
        label={WORDS.stageFromAbove}
        rig={rig}
        onClick={(event) => {
          const tapped = spotOf(event.currentTarget, event);
          const aims = show.aims.map(({ id, x, y }) => ({ id, x, y: -y }));
          const near = nearest(aims, tapped, reachOf(event.currentTarget, REACH));
          if (near) onChange({ aim: near.id });
          else add(Math.round(tapped[0] * 10) / 10, Math.round(-tapped[1] * 10) / 10);
        }}
      >
        {show.aims.map(({ id, name, x, y }) => {
          const on = 'aim' in value && value.aim === id;
          return (
            <g key={id}>
              <circle cx={x} cy={-y} r={(on ? 9 : 6) * pixel} fill={on ? palette.doing : palette.quiet} />
              <text
                x={x}
                y={-y - 12 * pixel}
                textAnchor="middle"
                fontSize={12 * pixel}
                fontFamily="Figtree"
                fill={palette.text}
              >
                {name}
              </text>
            </g>
          );
        })}
      </RoomFromAbove>
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
