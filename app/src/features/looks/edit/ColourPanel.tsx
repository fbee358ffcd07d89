// Colour: a circle to drag in, our own list of names, white by its temperature, and single emitters.

import { useState, type PointerEvent } from 'react';
import { View } from '@tamagui/core';
import {
  chromaticityFromHue,
  chromaticityFromKelvin,
  hexFromChromaticity,
  hueFromChromaticity,
  type Chromaticity,
  SWATCHES,
} from '@hovlix/core/colour';
import { useDrag } from '../../../ui/drag';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import { ColourMatches } from './ColourMatches';
import { DriveForm } from './DriveForm';
import { ownAttributes } from './model';
import { Owns } from './Owns';
import type { PanelProps } from './panel-props';
import { WORDS } from './words';

const WHITE: Chromaticity = { x: 0.3127, y: 0.329 };

export function ColourPanel(props: PanelProps) {
  const { lamps, heard, onSay } = props;
  const first = heard.colour && (heard.colour.type === 'hold' ? heard.colour.value : undefined);
  const own = ownAttributes(lamps, 'colour');
  const emitters = own.filter(({ attribute }) => attribute.startsWith('ColorAdd_'));
  const [single, setSingle] = useState(emitters.some(({ attribute }) => heard.more?.[attribute]));
  return (
    <Column gap={22}>
      <DriveForm
        label={WORDS.colour}
        drive={heard.colour}
        rest={WHITE}
        lamps={lamps.map(({ fixture }) => fixture.name)}
        onSay={(colour) => onSay({ colour }, 'colour')}
      >
        {(value, title, onChange) => <Picker title={title} value={value} onChange={onChange} />}
      </DriveForm>
      {first && <ColourMatches lamps={lamps} colour={first} />}
      <Owns {...props} own={own.filter(({ attribute }) => !attribute.startsWith('ColorAdd_'))} />
      {emitters.length > 0 && (
        <Button kind="quiet" pressed={single} onPress={() => setSingle(!single)}>
          {single
            ? WORDS.singleEmittersAway
            : WORDS.singleEmitters(emitters.map(({ name }) => name.toLowerCase()).join(', '))}
        </Button>
      )}
      {single && <Owns {...props} own={emitters} />}
    </Column>
  );
}

type PickerProps = {
  readonly title: string;
  readonly value: Chromaticity;
  readonly onChange: (value: Chromaticity) => void;
};

/** The hues as the eye of a screen goes round them. */
const HUES = 'linear-gradient(90deg,#f00,#ff0,#0f0,#0ff,#00f,#f0f,#f00)';

export function Picker({ title, value, onChange }: PickerProps) {
  // White has no hue, and a pale colour only a rough one: what was chosen here stays as it was chosen.
  const [own, setOwn] = useState(() => hueFromChromaticity(value));
  const { hue, saturation } = same(chromaticityFromHue(own.hue, own.saturation), value)
    ? own
    : hueFromChromaticity(value);
  const turn = (hue: number, saturation: number) => {
    setOwn({ hue, saturation });
    onChange(chromaticityFromHue(hue, saturation));
  };
  return (
    <Column gap={12}>
      <Row gap={14} alignItems="flex-start">
        <Disc title={title} hue={hue} saturation={saturation} onTurn={turn} />
        <div
          role="group"
          aria-label={WORDS.byName(title)}
          style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(44px, 1fr))', gap: 6, flex: 1 }}
        >
          {SWATCHES.map(({ name, colour }) => (
            <View
              key={name}
              render="button"
              aria-label={name}
              {...{ title: name }}
              onPress={() => onChange(colour)}
              height={44}
              borderRadius={12}
              borderWidth={2}
              borderColor={near(colour, value) ? '$text' : '$line'}
              cursor="pointer"
              style={{ background: hexFromChromaticity(colour) }}
            />
          ))}
        </div>
      </Row>
      <Quiet>{SWATCHES.find(({ colour }) => near(colour, value))?.name ?? hexFromChromaticity(value)}</Quiet>
      <Slider
        label={WORDS.hue(title)}
        value={hue}
        low={0}
        high={360}
        step={5}
        unit="°"
        track={HUES}
        onChange={(next) => turn(next, Math.max(saturation, 0.05))}
      />
      <Slider
        label={WORDS.saturation(title)}
        value={saturation * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        track={`linear-gradient(90deg,#fff,${hexFromChromaticity(chromaticityFromHue(hue, 1))})`}
        onChange={(next) => turn(hue, next / 100)}
      />
      <Slider
        label={WORDS.whiteByTemperature(title)}
        value={kelvinNear(value)}
        low={2000}
        high={9000}
        step={100}
        unit="K"
        track={`linear-gradient(90deg,#ff8a13,#ffd3a0,#fff,#d6e2ff)`}
        onChange={(kelvin) => onChange(chromaticityFromKelvin(kelvin))}
      />
      <View height={1} backgroundColor="$line" />
    </Column>
  );
}

const same = (a: Chromaticity, b: Chromaticity) => Math.hypot(a.x - b.x, a.y - b.y) < 1e-9;
const near = (a: Chromaticity, b: Chromaticity) => Math.hypot(a.x - b.x, a.y - b.y) < 0.004;

/** The temperature a white is nearest to, by McCamy's formula (Color Research & Application 17, 1992). */
function kelvinNear({ x, y }: Chromaticity): number {
  const n = (x - 0.332) / (0.1858 - y);
  return Math.min(9000, Math.max(2000, 449 * n ** 3 + 3525 * n ** 2 + 6823.3 * n + 5520.33));
}

const DISC = 132;
const nothing = () => undefined;

type DiscProps = {
  readonly title: string;
  readonly hue: number;
  readonly saturation: number;
  readonly onTurn: (hue: number, saturation: number) => void;
};

function Disc({ title, hue, saturation, onTurn }: DiscProps) {
  const palette = usePalette();
  const choose = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
    const angle = ((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360;
    onTurn(angle, Math.min(1, Math.hypot(x, y) / (box.width / 2)));
  };
  const hands = useDrag<HTMLDivElement>({ down: choose, move: choose, up: nothing, cancel: nothing });
  const angle = (hue * Math.PI) / 180;
  return (
    <div
      role="img"
      aria-label={WORDS.colourCircle(title)}
      {...hands}
      style={{
        position: 'relative',
        width: DISC,
        height: DISC,
        flexShrink: 0,
        borderRadius: '50%',
        touchAction: 'none',
        cursor: 'crosshair',
        background: 'radial-gradient(closest-side,#fff,transparent),conic-gradient(#f00,#ff0,#0f0,#0ff,#00f,#f0f,#f00)',
      }}
    >
      <div
        style={{
          position: 'absolute',
          left: DISC / 2 + (Math.sin(angle) * saturation * DISC) / 2 - 11,
          top: DISC / 2 - (Math.cos(angle) * saturation * DISC) / 2 - 11,
          width: 22,
          height: 22,
          borderRadius: 11,
          boxSizing: 'border-box',
          border: `3px solid ${palette.ground}`,
          boxShadow: `0 0 0 2px ${palette.text}`,
        }}
      />
    </div>
  );
}
