// What a chosen point of a curve can be told: where, how high, and how it goes on to the next.

import { SEGMENTS, speedOfValue, valueOfSpeed, type Point, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { Typed } from '../../../ui/form';
import { Column, Quiet } from '../../../ui/pieces';
import { Scroller } from '../../../ui/ScrollArea';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { SEGMENT_NAMES } from '../lanes/words';
import { ChosenHead } from './ChosenHead';
import { beatOfPlace, placeText, readPlace } from './grid';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly point: Point;
  /** Its heights are speeds. */
  readonly speed: boolean;
  /** A height in the unit of what the curve moves. */
  readonly words: (value: number) => string;
  readonly onPut: (point: Point) => void;
  readonly onRemove: () => void;
  readonly onDone: () => void;
};

export function PointForm({ song, point, speed, words, onPut, onRemove, onDone }: Props) {
  const real = words(point.value);
  return (
    <Scroller flexShrink={0} maxHeight="58%" backgroundColor="$raised" borderTopWidth={1} borderColor="$line">
      <Column gap={6} paddingHorizontal={12} paddingVertical={8} role="group" aria-label={WORDS.chosenPoint}>
        <ChosenHead remove={WORDS.deletePoint} onRemove={onRemove} onDone={onDone}>
          <Quiet>{WORDS.nextPoint}</Quiet>
        </ChosenHead>
        <Segments
          label={WORDS.nextPoint}
          value={point.shape}
          choices={SEGMENTS.map((value) => ({ value, name: SEGMENT_NAMES[value] }))}
          onChoose={(shape) => onPut({ ...point, shape })}
        />
        {point.shape === 'bent' && (
          <Slider
            label={WORDS.bendEarlyLate}
            value={(point.bend ?? 0) * 100}
            low={-100}
            high={100}
            step={10}
            unit="%"
            onChange={(bend) => onPut({ ...point, bend: bend / 100 })}
          />
        )}
        {speed ? (
          <Slider
            label={WORDS.speed}
            value={speedOfValue(point.value)}
            low={0}
            high={4}
            step={0.1}
            digits={2}
            unit="×"
            onChange={(value) => onPut({ ...point, value: valueOfSpeed(value) })}
          />
        ) : (
          <Slider
            label={WORDS.value}
            value={point.value * 100}
            low={0}
            high={100}
            step={1}
            unit="%"
            onChange={(value) => onPut({ ...point, value: value / 100 })}
          />
        )}
        {!speed && !real.endsWith('%') && <Quiet>{WORDS.inThisRig(real)}</Quiet>}
        <Typed
          key={point.id}
          label={WORDS.barAndBeat}
          value={placeText(song, point.at)}
          read={readPlace(song)}
          patient
          onChange={(text) => {
            const at = beatOfPlace(song, text);
            if (at !== undefined) onPut({ ...point, at: beats(at) });
          }}
          numeric
        />
      </Column>
    </Scroller>
  );
}
