// How long one turn of a wave takes: in beats, locked to the clock, or in seconds, which can be said in Hz.

import { SPAN_BEATS, SPAN_SECONDS, type Span } from '@hovlix/core/light';
import { Chip } from '../../../ui/Chip';
import { Pair, decimal, Typed } from '../../../ui/form';
import { Column, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { WORDS } from './words';

const BEATS = [0.25, 0.5, 1, 2, 4, 8, 16, 32];
const FRACTIONS: Readonly<Record<number, string>> = { 0.25: '1/4', 0.5: '1/2' };

export function SpanForm({ span, onChange }: { readonly span: Span; readonly onChange: (span: Span) => void }) {
  const inBeats = 'beats' in span;
  return (
    <Column gap={10}>
      <Segments
        label={WORDS.cycleLength}
        titled
        value={inBeats ? 'beats' : 'seconds'}
        choices={[
          { value: 'beats', name: WORDS.beats },
          { value: 'seconds', name: WORDS.secondsOrHz },
        ]}
        onChoose={(unit) =>
          unit !== (inBeats ? 'beats' : 'seconds') && onChange(unit === 'beats' ? { beats: 4 } : { seconds: 2 })
        }
      />
      {inBeats ? (
        <>
          <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.beatsPerCycle}>
            {BEATS.map((beats) => (
              <Chip
                key={beats}
                small
                name={FRACTIONS[beats] ?? String(beats)}
                label={`${FRACTIONS[beats] ?? beats} ${beats === 1 ? 'beat' : 'beats'}`}
                on={span.beats === beats}
                onPress={() => onChange({ beats })}
              />
            ))}
          </Row>
          <Typed
            label={WORDS.beatsPerCycle}
            value={span.beats}
            hint={WORDS.from116}
            read={decimal(SPAN_BEATS.least, SPAN_BEATS.most)}
            onChange={(beats) => onChange({ beats })}
          />
        </>
      ) : (
        <Pair>
          <Typed
            label={WORDS.secondsPerCycle}
            value={Math.round(span.seconds * 1000) / 1000}
            read={decimal(SPAN_SECONDS.least, SPAN_SECONDS.most)}
            onChange={(seconds) => onChange({ seconds })}
          />
          <Typed
            label={WORDS.hz}
            value={Math.round(1000 / span.seconds) / 1000}
            read={decimal(0.001, 50)}
            onChange={(hz) => onChange({ seconds: 1 / hz })}
          />
        </Pair>
      )}
    </Column>
  );
}
