// One deck: what is on it, where it is, and all that hands do there.

import { useEffect, useState } from 'react';
import { deckAt, PITCH_MOST, type Deck, type DeckCommand } from '@hovlix/core/player';
import { useHovlix } from '../../../host/hovlix';
import { Card } from '../../../ui/card';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { clockText } from '../../../ui/clock-text';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { artistAndTitle, STAND_IN, WORDS } from './words';

type Props = {
  readonly number: number;
  readonly deck: Deck | undefined;
  readonly does: (command: DeckCommand) => void;
};

export function DeckPanel({ number, deck, does }: Props) {
  const track = deck?.track;
  return (
    <Card title={STAND_IN.deck(number)}>
      {deck && track ? (
        <>
          <Words numberOfLines={1} fontWeight="600">
            {artistAndTitle(track)}
          </Words>
          <Place deck={deck} length={track.length} does={does} />
          <Transport deck={deck} beat={track.bpm > 0 ? 60 / track.bpm : 0.5} does={does} />
          <Loops deck={deck} beat={track.bpm > 0 ? 60 / track.bpm : 0.5} does={does} />
          <Faders deck={deck} does={does} />
        </>
      ) : (
        <Quiet>{STAND_IN.empty}</Quiet>
      )}
    </Card>
  );
}

const SHOWN_EVERY_MS = 100;

/** Where the deck is by now. */
function usePlace(deck: Deck): number {
  const { conducting } = useHovlix();
  const [place, setPlace] = useState(deck.songTime as number);
  useEffect(() => {
    const show = () => setPlace(deckAt(deck, conducting.now()).songTime);
    const showing = setInterval(show, SHOWN_EVERY_MS);
    return () => clearInterval(showing);
  }, [deck, conducting]);
  return place;
}

function Place({ deck, length, does }: { readonly deck: Deck; readonly length: number; readonly does: Props['does'] }) {
  const place = usePlace(deck);
  return (
    <Column gap={2}>
      <Row justifyContent="space-between">
        <Figures fontSize={28} lineHeight={34} color="$text" testID="deck-place">
          {clockText(place)}
        </Figures>
        <Figures>{`−${clockText(length - place)}`}</Figures>
      </Row>
      <Slider
        label={STAND_IN.position}
        value={place}
        low={0}
        high={Math.max(1, length)}
        step={1}
        unit="s"
        onChange={(to) => does({ do: 'go', to })}
      />
    </Column>
  );
}

type PartProps = { readonly deck: Deck; readonly beat: number; readonly does: Props['does'] };

function Transport({ deck, beat, does }: PartProps) {
  return (
    <Row gap={8} flexWrap="wrap">
      <Button kind="primary" onPress={() => does({ do: deck.playing ? 'pause' : 'play' })}>
        {deck.playing ? WORDS.pause : WORDS.play}
      </Button>
      <Button onPress={() => does({ do: 'cue' })}>{STAND_IN.cue}</Button>
      <Button onPress={() => does({ do: 'jog', by: -beat })}>{STAND_IN.back}</Button>
      <Button onPress={() => does({ do: 'jog', by: beat })}>{STAND_IN.forward}</Button>
    </Row>
  );
}

const LOOPS = [1, 4, 8, 16];
const OFF = 'off';

function Loops({ deck, beat, does }: PartProps) {
  const long = deck.loop ? Math.round((deck.loop.to - deck.loop.from) / beat) : undefined;
  return (
    <Segments
      label={STAND_IN.loop}
      titled
      value={long === undefined ? OFF : `${long}`}
      choices={[{ value: OFF, name: STAND_IN.noLoop }, ...LOOPS.map((one) => ({ value: `${one}`, name: `${one}` }))]}
      onChoose={(chosen) => does({ do: 'loop', beats: chosen === OFF ? null : Number(chosen) })}
    />
  );
}

function Faders({ deck, does }: { readonly deck: Deck; readonly does: Props['does'] }) {
  return (
    <Column gap={8}>
      <Slider
        label={STAND_IN.pitch}
        value={(deck.rate - 1) * 100}
        low={-PITCH_MOST * 100}
        high={PITCH_MOST * 100}
        step={1}
        digits={1}
        unit="%"
        onChange={(by) => does({ do: 'pitch', by: by / 100 })}
      />
      <Slider
        label={STAND_IN.level}
        value={deck.level * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(level) => does({ do: 'level', level: level / 100 })}
      />
    </Column>
  );
}
