// The same attribute of many lamps, a fader for each: moved alone, to the same, or keeping their distances.

import { useState } from 'react';
import { fadersIn, fadersMoved, type Faders, type LookValue, type Together } from '@hovlix/core/light';
import type { Casting, Patched } from '@hovlix/core/rig';
import { Chip } from '../../../ui/Chip';
import { Column, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { faderKinds, meaningOf, type FaderKind } from './model';
import { WORDS } from './words';

type Props = {
  readonly lamps: readonly Patched[];
  readonly casting: readonly Casting[];
  /** What is said in the look, or in each of the steps that are changed together. */
  readonly sets: readonly (readonly LookValue[])[];
  readonly onMove: (attribute: string, lamps: readonly Patched[], faders: Faders) => void;
};

const TOGETHER: readonly { readonly value: Together; readonly name: string }[] = [
  { value: 'alone', name: WORDS.eachAlone },
  { value: 'same', name: WORDS.allTheSame },
  { value: 'apart', name: WORDS.keepDistances },
];

export function FadersPanel({ lamps, casting, sets, onMove }: Props) {
  const kinds = faderKinds(lamps);
  const [wanted, setWanted] = useState('level');
  const [together, setTogether] = useState<Together>('alone');
  const [fine, setFine] = useState(false);
  const kind = kinds.find(({ attribute }) => attribute === wanted) ?? kinds[0];
  if (!kind) return null;
  const ids = kind.lamps.map(({ fixture }) => fixture.id);
  const faders = sets.map((values) => fadersIn(values, ids, kind.attribute, casting));
  return (
    <Column gap={14}>
      <ScrollArea sideways>
        <Row gap={6} role="group" aria-label={WORDS.onTheFaders}>
          {kinds.map(({ attribute, name }) => (
            <Chip
              key={attribute}
              small
              name={name}
              on={attribute === kind.attribute}
              onPress={() => setWanted(attribute)}
            />
          ))}
        </Row>
      </ScrollArea>
      <Segments label={WORDS.movedTogether} value={together} choices={TOGETHER} onChoose={setTogether} />
      <Column gap={8} role="group" aria-label={WORDS.faders(kind.name)}>
        {kind.lamps.map((lamp, i) => (
          <LampFader
            key={lamp.fixture.id}
            kind={kind}
            lamp={lamp}
            values={faders.map((set) => set[i])}
            fine={fine}
            onMove={(to) => onMove(kind.attribute, kind.lamps, fadersMoved(faders, i, to, together, [0, kind.high]))}
          />
        ))}
      </Column>
      <Switch label={WORDS.fineTenthWay} on={fine} onChange={setFine} />
    </Column>
  );
}

type LampFaderProps = {
  readonly kind: FaderKind;
  readonly lamp: Patched;
  /** In each look or step. */
  readonly values: readonly (number | undefined)[];
  readonly fine: boolean;
  readonly onMove: (to: number) => void;
};

function LampFader({ kind, lamp, values, fine, onMove }: LampFaderProps) {
  const { number, name } = lamp.fixture;
  const said = values.filter((value) => value !== undefined);
  const value = said[0] ?? kind.rest;
  const differs = said.length < values.length ? said.length > 0 : said.some((one) => Math.abs(one - value) > 1e-6);
  const words = said.length === 0 ? 'left alone' : differs ? 'not the same in all steps' : meaningOf(kind, lamp, value);
  return (
    <Column>
      <Slider
        label={`${number} ${name}`}
        value={value * kind.scale}
        low={0}
        high={kind.high * kind.scale}
        step={kind.scale === 1 ? 0.5 : 1}
        digits={fine || kind.scale === 1 ? 1 : 0}
        unit={kind.unit}
        fine={fine}
        onChange={(to) => onMove(to / kind.scale)}
      />
      {words && <Quiet>{words}</Quiet>}
    </Column>
  );
}
