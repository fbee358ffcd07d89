// How long one turn of a wave takes: in beats, locked to the clock, or in seconds, which can be said in Hz.

import { SPAN_BEATS, SPAN_SECONDS, type Span } from '@hovlix/core/light';
import { Chip } from '../../../ui/Chip';
import { Pair, decimal, Typed } from '../../../ui/form';
import { Column, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';

const BEATS = [0.25, 0.5, 1, 2, 4, 8, 16, 32];
const WORDS: Readonly<Record<number, string>> = { 0.25: '1/4', 0.5: '1/2' };

export function SpanForm({ span, onChange }: { readonly span: Span; readonly onChange: (span: Span) => void }) {
  const inBeats = 'beats' in span;
  return (
    <Column gap={10}>
      <Segments
        label="Cycle length"
        titled
        value={inBeats ? 'beats' : 'seconds'}
        choices={[
          { value: 'beats', name: 'Beats' },
          { value: 'seconds', name: 'Seconds or Hz' },
        ]}
        onChoose={(unit) =>
          unit !== (inBeats ? 'beats' : 'seconds') && onChange(unit === 'beats' ? { beats: 4 } : { seconds: 2 })
        }
      />
      {inBeats ? (
        <>
          <Row gap={6} flexWrap="wrap" role="group" aria-label="Beats per cycle">
            {BEATS.map((beats) => (
              <Chip
                key={beats}
                small
                name={WORDS[beats] ?? String(beats)}
                label={`${WORDS[beats] ?? beats} ${beats === 1 ? 'beat' : 'beats'}`}
                on={span.beats === beats}
                onPress={() => onChange({ beats })}
              />
            ))}
          </Row>
          <Typed
            label="Beats per cycle"
            value={span.beats}
            hint="From 1/16 beat (0.0625) to 64 long bars (512)."
            read={decimal(SPAN_BEATS.least, SPAN_BEATS.most)}
            onChange={(beats) => onChange({ beats })}
          />
        </>
      ) : (
        <Pair>
          <Typed
            label="Seconds per cycle"
            value={Math.round(span.seconds * 1000) / 1000}
            read={decimal(SPAN_SECONDS.least, SPAN_SECONDS.most)}
            onChange={(seconds) => onChange({ seconds })}
          />
          <Typed
            label="Hz"
            value={Math.round(1000 / span.seconds) / 1000}
            read={decimal(0.001, 50)}
            onChange={(hz) => onChange({ seconds: 1 / hz })}
          />
        </Pair>
      )}
    </Column>
  );
}
