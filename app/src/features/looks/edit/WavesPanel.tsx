// Waves of the chosen lamps: what they move, by which shape, how far, how fast, and how they run over the cast.

import { MOVE_SHAPES, READY_EFFECTS, WAVE_SHAPES, Wave, type WaveShape } from '@hovlix/core/light';
import type { Patched } from '@hovlix/core/rig';
import { Chip } from '../../../ui/Chip';
import { useOpenRow } from '../../../ui/open-row';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { Bounds } from './Bounds';
import { Picker } from './ColourPanel';
import { DrawnShape } from './DrawnShape';
import { RunForm } from './DriveForm';
import { canMove, movables, nameOfMoved } from './moved';
import type { PanelProps } from './panel-props';
import { SpanForm } from './SpanForm';
import { WavePicture } from './WavePicture';
import { WORDS } from './words';

const SHAPE_NAMES: Readonly<Record<WaveShape, string>> = {
  sine: 'Sine',
  triangle: 'Triangle',
  up: WORDS.rampUp,
  down: WORDS.rampDown,
  square: 'Square',
  random: WORDS.randomSteps,
  drawn: 'Drawn',
};

const FIGURE_NAMES = {
  circle: 'Circle',
  eight: WORDS.figureOfEight,
  sweep: 'Sweep',
  bounce: 'Bounce',
  wander: 'Wander',
} as const;

/** What a wave is called that is not edited: “Sine on level, 4 beats”. */
export function waveWords(wave: Wave): string {
  const span =
    'beats' in wave.span
      ? `${tidy(wave.span.beats)} ${wave.span.beats === 1 ? 'beat' : 'beats'}`
      : `${tidy(wave.span.seconds)} s`;
  if (wave.type === 'move') return `${FIGURE_NAMES[wave.shape]}, ${span}`;
  const on = wave.type === 'colours' ? 'two colours' : nameOfMoved(wave.on);
  return WORDS.on(SHAPE_NAMES[wave.shape], on, span);
}

const tidy = (number: number) => String(Math.round(number * 1000) / 1000);

export function WavesPanel({ lamps, heard, onSay }: PanelProps) {
  const waves = heard.waves ?? [];
  const row = useOpenRow(waves.length === 1 ? 0 : null);
  const put = (next: readonly Wave[], gesture?: string) =>
    onSay({ waves: next.length > 0 ? [...next] : undefined }, gesture);
  const add = (wave: unknown) => {
    put([...waves, Wave.parse(wave)]);
    row.show(waves.length);
  };
  return (
    <Column gap={16}>
      {waves.map((wave, i) => (
        <Column key={i} gap={14} padding={14} borderRadius={14} backgroundColor="$raised">
          <Row justifyContent="space-between" gap={8}>
            <Words fontWeight="600" flexShrink={1}>
              {waveWords(wave)}
            </Words>
            <Row gap={4}>
              <Button kind="quiet" onPress={() => row.toggle(i)}>
                {row.isOpen(i) ? WORDS.done : WORDS.change}
              </Button>
              <Button
                kind="quiet"
                label={WORDS.remove3(waveWords(wave))}
                onPress={() => {
                  row.removed(i);
                  put(waves.filter((_, k) => k !== i));
                }}
              >
                {WORDS.remove}
              </Button>
            </Row>
          </Row>
          <WavePicture wave={wave} count={lamps.length} />
          {row.isOpen(i) && (
            <WaveForm
              wave={wave}
              onChange={(next) =>
                put(
                  waves.map((one, k) => (k === i ? next : one)),
                  WORDS.wave(i),
                )
              }
            />
          )}
        </Column>
      ))}
      {waves.length < 16 && <AddWave lamps={lamps} onAdd={add} />}
      <Ready lamps={lamps} onSay={onSay} />
    </Column>
  );
}

/** Effects to begin with, to be changed like one's own. */
function Ready({ lamps, onSay }: Pick<PanelProps, 'lamps' | 'onSay'>) {
  const moves = canMove(lamps);
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.effectsStartFrom}</Quiet>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.effectsStartFrom}>
        {READY_EFFECTS.filter((effect) => moves || !effect.moves).map(({ name, saying }) => (
          <Chip key={name} small name={name} on={false} onPress={() => onSay(saying)} />
        ))}
      </Row>
      <Quiet>{WORDS.theyReplaceWaves}</Quiet>
    </Column>
  );
}

/** What the chosen lamps can have a wave on, each with a wave to start from. */
function AddWave({ lamps, onAdd }: { readonly lamps: readonly Patched[]; readonly onAdd: (wave: unknown) => void }) {
  const base = { span: { beats: 4 }, turn: lamps.length > 1 ? 1 : 0 };
  const numbers = movables(lamps).map(({ name, on, low, high }): Offer => {
    const shape = on === 'hue' ? 'up' : 'sine';
    return [name, { type: 'wave', on, shape, low, high, ...base }];
  });
  const colours = { type: 'colours', shape: 'sine', from: { x: 0.15, y: 0.06 }, to: { x: 0.64, y: 0.33 }, ...base };
  const offers: readonly Offer[] = [
    ...numbers.slice(0, 2),
    [WORDS.twoColours, colours],
    ...(canMove(lamps)
      ? [['Movement', { type: 'move', shape: 'circle', width: 30, height: 20, ...base }] satisfies Offer]
      : []),
    ...numbers.slice(2),
  ];
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.addWave}</Quiet>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.addWave}>
        {offers.map(([name, offer]) => (
          <Chip key={name} small name={name} on={false} onPress={() => onAdd(offer)} />
        ))}
      </Row>
    </Column>
  );
}

type Offer = readonly [name: string, wave: unknown];

type FormProps = { readonly wave: Wave; readonly onChange: (wave: Wave) => void };

function WaveForm({ wave, onChange }: FormProps) {
  return (
    <Column gap={18}>
      {wave.type === 'move' ? (
        <FigureForm wave={wave} onChange={onChange} />
      ) : (
        <>
          <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.shape}>
            {WAVE_SHAPES.map((shape) => (
              <Chip
                key={shape}
                small
                name={SHAPE_NAMES[shape]}
                on={wave.shape === shape}
                onPress={() =>
                  onChange({
                    ...wave,
                    shape,
                    ...(shape === 'drawn' && !wave.points ? { points: [0, 0.4, 1, 0.7, 0.2, 0.6, 0.3, 0.1] } : {}),
                  })
                }
              />
            ))}
          </Row>
          {wave.shape === 'drawn' && (
            <DrawnShape points={wave.points ?? [0, 1]} onChange={(points) => onChange({ ...wave, points })} />
          )}
          {wave.shape === 'square' && (
            <Slider
              label={WORDS.highFor}
              value={wave.width * 100}
              low={1}
              high={99}
              step={1}
              unit="%"
              onChange={(width) => onChange({ ...wave, width: width / 100 })}
            />
          )}
        </>
      )}
      {wave.type === 'wave' && (
        <Bounds moving={wave} onChange={onChange} names={[WORDS.low, WORDS.high, WORDS.lowAboveHigh]} />
      )}
      {wave.type === 'colours' && (
        <>
          <Picker title={WORDS.fromAlone} value={wave.from} onChange={(from) => onChange({ ...wave, from })} />
          <Picker title={WORDS.toAlone} value={wave.to} onChange={(to) => onChange({ ...wave, to })} />
        </>
      )}
      <SpanForm span={wave.span} onChange={(span) => onChange({ ...wave, span })} />
      <Slider
        label={WORDS.offsetAcrossLamps}
        value={wave.turn * 100}
        low={0}
        high={400}
        most={800}
        step={5}
        unit="%"
        onChange={(turn) => onChange({ ...wave, turn: turn / 100 })}
      />
      <Quiet>{WORDS.n100SpreadsLamps}</Quiet>
      {wave.turn > 0 && <RunForm run={wave} onChange={(run) => onChange({ ...wave, ...run })} />}
      <Slider
        label={WORDS.beginsAt}
        value={wave.offset * 360}
        low={0}
        high={360}
        step={15}
        unit="°"
        onChange={(turn) => onChange({ ...wave, offset: turn / 360 })}
      />
    </Column>
  );
}

function FigureForm({
  wave,
  onChange,
}: {
  readonly wave: Extract<Wave, { type: 'move' }>;
  readonly onChange: (wave: Wave) => void;
}) {
  return (
    <>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.figure}>
        {MOVE_SHAPES.map((shape) => (
          <Chip
            key={shape}
            small
            name={FIGURE_NAMES[shape]}
            on={wave.shape === shape}
            onPress={() => onChange({ ...wave, shape })}
          />
        ))}
      </Row>
      <Slider
        label={WORDS.widthPan}
        value={wave.width}
        low={0}
        high={360}
        step={1}
        unit="°"
        onChange={(width) => onChange({ ...wave, width })}
      />
      <Slider
        label={WORDS.heightTilt}
        value={wave.height}
        low={0}
        high={180}
        step={1}
        unit="°"
        onChange={(height) => onChange({ ...wave, height })}
      />
      <Switch label={WORDS.mirrorSecondHalf} on={wave.flip} onChange={(flip) => onChange({ ...wave, flip })} />
    </>
  );
}
