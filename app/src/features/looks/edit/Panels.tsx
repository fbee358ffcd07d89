// What the chosen lamps should do, one family of attributes at a time.

import { Wave, type Drive, type Family } from '@hovlix/core/light';
import type { Gobo, Patched } from '@hovlix/core/rig';
import { Chip } from '../../../ui/Chip';
import { Column, Quiet, Row } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import { AimPanel } from './AimPanel';
import { ColourPanel } from './ColourPanel';
import { DriveForm } from './DriveForm';
import { GoboPicture } from './GoboPicture';
import { ownAttributes } from './model';
import { Owns } from './Owns';
import type { PanelProps } from './panel-props';
import { WORDS } from './words';

export function Panel({ family, ...props }: PanelProps & { readonly family: Family }) {
  switch (family) {
    case 'level':
      return <NumberDrive {...props} aspect="level" label={WORDS.level} scale={100} high={1} unit="%" rest={0} />;
    case 'colour':
      return <ColourPanel {...props} />;
    case 'aim':
      return <AimPanel {...props} />;
    case 'beam':
      return <BeamPanel {...props} />;
    case 'rate':
      return <RatePanel {...props} />;
    case 'other':
      return <OtherPanel {...props} />;
  }
}

type NumberProps = PanelProps & {
  readonly aspect: 'level' | 'zoom' | 'haze' | 'strobe';
  readonly label: string;
  readonly scale: number;
  readonly high: number;
  readonly unit: string;
  readonly rest: number;
  readonly digits?: number;
};

function NumberDrive({ lamps, heard, onSay, aspect, label, scale, high, unit, rest, digits = 0 }: NumberProps) {
  const say = (drive: Drive<number> | undefined) => onSay({ [aspect]: drive }, aspect);
  return (
    <DriveForm label={label} drive={heard[aspect]} rest={rest} lamps={namesOf(lamps)} onSay={say}>
      {(value, title, onChange) => (
        <Slider
          label={title}
          value={value * scale}
          low={0}
          high={high * scale}
          step={scale === 1 ? 0.5 : 1}
          unit={unit}
          digits={digits}
          onChange={(next) => onChange(next / scale)}
        />
      )}
    </DriveForm>
  );
}

const namesOf = (lamps: readonly Patched[]) => lamps.map(({ fixture }) => fixture.name);

function BeamPanel(props: PanelProps) {
  const { lamps } = props;
  const gobos = lamps.map(({ profile }) => profile.gobos).find((list) => list.length > 0) ?? [];
  const zooms = lamps.some(({ mode }) => mode.channels.some(({ attribute }) => attribute === 'Zoom'));
  const own = ownAttributes(lamps, 'beam');
  if (!zooms && gobos.length === 0 && own.length === 0) return <Quiet>{WORDS.chosenLampsHave}</Quiet>;
  return (
    <Column gap={22}>
      {zooms && <NumberDrive {...props} aspect="zoom" label={WORDS.zoom} scale={100} high={1} unit="%" rest={0.5} />}
      {gobos.length > 0 && <Gobos {...props} gobos={gobos} />}
      <Owns {...props} own={own} />
    </Column>
  );
}

function Gobos({ heard, onSay, gobos }: PanelProps & { readonly gobos: readonly Gobo[] }) {
  const slot = heard.gobo?.type === 'hold' ? heard.gobo.value : undefined;
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.gobo}</Quiet>
      <Row gap={8} flexWrap="wrap" role="group" aria-label={WORDS.gobo}>
        {gobos.map(({ name, pattern }, i) => (
          <Chip
            key={name}
            small
            name={name}
            on={slot === i}
            picture={<GoboPicture pattern={pattern} on={slot === i} />}
            onPress={() => onSay({ gobo: slot === i ? undefined : { type: 'hold', value: i } })}
          />
        ))}
      </Row>
    </Column>
  );
}

const STROBES = [0, 2, 5, 10, 15];

function RatePanel(props: PanelProps) {
  const { heard, lamps, onSay } = props;
  const hz = heard.strobe?.type === 'hold' ? heard.strobe.value : undefined;
  return (
    <Column gap={22}>
      <Column gap={12}>
        <Row gap={8} flexWrap="wrap" role="group" aria-label={WORDS.strobe}>
          {STROBES.map((rate) => (
            <Chip
              key={rate}
              small
              name={rate === 0 ? WORDS.steady : `${rate} Hz`}
              on={hz === rate}
              onPress={() => onSay({ strobe: { type: 'hold', value: rate } })}
            />
          ))}
        </Row>
        <NumberDrive
          {...props}
          aspect="strobe"
          label={WORDS.strobe}
          scale={1}
          high={30}
          unit="Hz"
          rest={0}
          digits={1}
        />
      </Column>
      <BeatFlashes {...props} />
      <Owns {...props} own={ownAttributes(lamps, 'rate')} />
    </Column>
  );
}

const FLASH_SPANS = [1 / 8, 1 / 4, 1 / 2, 1, 2];
const SPAN_WORDS: Readonly<Record<number, string>> = { 0.125: '1/8', 0.25: '1/4', 0.5: '1/2', 1: '1', 2: '2' };

/** Flashes that go by the beat: a square wave on the level, which any lamp can do. */
function BeatFlashes({ heard, onSay }: PanelProps) {
  const waves = heard.waves ?? [];
  const place = waves.findIndex(
    (wave) => wave.type === 'wave' && wave.on === 'level' && wave.shape === 'square' && 'beats' in wave.span,
  );
  const flashes = waves[place];
  const span = flashes && 'beats' in flashes.span ? flashes.span.beats : undefined;
  const width = flashes?.type === 'wave' ? flashes.width : 0.5;
  const put = (change: { readonly beats?: number; readonly width?: number } | null) => {
    const next =
      change &&
      Wave.parse({
        type: 'wave',
        on: 'level',
        shape: 'square',
        low: 0,
        high: 1,
        ...flashes,
        span: { beats: change.beats ?? span ?? 1 },
        width: change.width ?? width,
      });
    const others = waves.filter((_, i) => i !== place);
    const all = next ? [...others, next] : others;
    onSay({ waves: all.length > 0 ? all : undefined }, 'flashes');
  };
  return (
    <Column gap={12}>
      <Quiet fontWeight="600">{WORDS.flashEveryBeats}</Quiet>
      <Row gap={8} flexWrap="wrap" role="group" aria-label={WORDS.flashesInBeats}>
        <Chip small name={WORDS.none} on={!flashes} onPress={() => put(null)} />
        {FLASH_SPANS.map((beats) => (
          <Chip
            key={beats}
            small
            name={SPAN_WORDS[beats]!}
            label={`A flash every ${SPAN_WORDS[beats]} beat`}
            on={span === beats}
            onPress={() => put({ beats })}
          />
        ))}
      </Row>
      {flashes && (
        <Slider
          label={WORDS.eachFlashLasts}
          value={width * 100}
          low={1}
          high={99}
          step={1}
          unit="%"
          onChange={(share) => put({ width: share / 100 })}
        />
      )}
    </Column>
  );
}

function OtherPanel(props: PanelProps) {
  const own = ownAttributes(props.lamps, 'other');
  const fogs = props.lamps.some(({ mode }) => mode.channels.some(({ attribute }) => attribute === 'Fog1'));
  if (!fogs && own.length === 0) return <Quiet>{WORDS.chosenLampsHaveNothing}</Quiet>;
  return (
    <Column gap={22}>
      {fogs && <NumberDrive {...props} aspect="haze" label={WORDS.fog} scale={100} high={1} unit="%" rest={0} />}
      <Owns {...props} own={own} />
    </Column>
  );
}
