// How fast a look that is on runs against the clock: halved, doubled, and nudged a little.

import type { Look } from '@hovlix/core/light';
import { clockNow } from '../host/conduct/gestures';
import { useHovlix, useLive } from '../host/hovlix';
import { Button, Figures, Row } from './pieces';

const RATES = { least: 1 / 16, most: 16 } as const;
/** One nudge: so little that it does not jump, and forty of them double. */
const NUDGE = 2 ** (1 / 40);

type Props = { readonly id: Look['id']; readonly name: string };

export function SpeedRow({ id, name }: Props) {
  const app = useHovlix();
  const rate = useLive((live) => live.standing.find((one) => one.look === id && one.on)?.speed?.rate ?? 1);
  const put = (next: number) => {
    // Nudged back to where it was, it is there to the last digit.
    const whole = 2 ** Math.round(Math.log2(next));
    const rate = Math.abs(next / whole - 1) < 1e-6 ? whole : next;
    app.conducting.act({ type: 'speed', rate, look: id, beat: clockNow(app).beat });
  };
  const button = (label: string, text: string, next: number) => (
    <Button
      label={`${name}: ${label}`}
      kind="quiet"
      disabled={next < RATES.least - 1e-9 || next > RATES.most + 1e-9}
      onPress={() => put(next)}
    >
      {text}
    </Button>
  );
  return (
    <Row gap={0}>
      {button('half as fast', '÷2', rate / 2)}
      {button('a little slower', '−', rate / NUDGE)}
      <Figures color={rate === 1 ? '$quiet' : '$text'} minWidth={52} textAlign="center">
        {rateWords(rate)}
      </Figures>
      {button('a little faster', '+', rate * NUDGE)}
      {button('twice as fast', '×2', rate * 2)}
    </Row>
  );
}

/** Against the clock: 2:1 is twice as fast. */
function rateWords(rate: number): string {
  return rate < 1 ? `1:${Math.round(100 / rate) / 100}` : `${Math.round(rate * 100) / 100}:1`;
}
