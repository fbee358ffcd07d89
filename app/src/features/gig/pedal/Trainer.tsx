// Trying a pedal: what was recognised, live, and times that fit what the foot did.

import { useEffect, useState } from 'react';
import { Text } from '@tamagui/core';
import { measured, suggestedTimes, USUAL_TIMES, type Edge, type Gesture, type Pedal } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { useHovlix } from '../../../host/hovlix';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';

import { WORDS, GESTURE_NAMES } from './words';

type TrainerProps = {
  readonly show: Show;
  readonly pedal: Pedal;
  readonly onTimes: (times: Pedal['times']) => void;
};

type Seen = { readonly control: string; readonly gesture: Gesture; readonly at: number };

/** Changes that are kept: some minutes of a foot. */
const MOST_EDGES = 200;

/** What was recognised, live; and times that fit what the foot did. */
export function Trainer({ show, pedal, onTimes }: TrainerProps) {
  const app = useHovlix();
  /** Of the switch that was stepped on last: each has a contact of its own. */
  const [tried, setTried] = useState<{ readonly control: string; readonly edges: readonly Edge[] }>({
    control: '',
    edges: [],
  });
  const [seen, setSeen] = useState<readonly Seen[]>([]);
  const own = show.controls.filter((one) => one.kind === 'switch' && one.pedal === pedal.id);
  const ids = own.map(({ id }) => id as string).join(' ');
  useEffect(() => {
    const mine = new Set(ids.split(' '));
    return app.controls.onFelt(({ control, down, at, gestures }) => {
      if (!mine.has(control)) return;
      setTried((before) => {
        const edges = before.control === control ? before.edges : [];
        return edges.at(-1)?.down === down ? before : { control, edges: [...edges, { down, at }].slice(-MOST_EDGES) };
      });
      const told = gestures.filter((gesture) => gesture !== 'release').map((gesture) => ({ control, gesture, at }));
      if (told.length > 0) setSeen((before) => [...told.reverse(), ...before].slice(0, 4));
    });
  }, [app, ids]);
  const [last, ...before] = seen;
  const found = measured(tried.edges);
  const fit = suggestedTimes(found);
  const count = tried.edges.filter(({ down }) => down).length;
  const nameOf = (control: string) => own.find(({ id }) => id === control)?.name ?? '';
  const differs = JSON.stringify(fit) !== JSON.stringify(pedal.times);
  return (
    <Column gap={8} role="group" aria-label={WORDS.tryIt}>
      <Words>{WORDS.stepAsYou}</Words>
      <Column minHeight={72} justifyContent="center" paddingHorizontal={14} borderRadius={14} backgroundColor="$sunken">
        <Text
          fontFamily="$heading"
          fontWeight="650"
          fontSize={26}
          lineHeight={32}
          color={last ? '$doingText' : '$quiet'}
          testID="recognised"
        >
          {last
            ? `${GESTURE_NAMES[last.gesture]}${own.length > 1 ? `: ${nameOf(last.control)}` : ''}`
            : WORDS.waitingYourFoot}
        </Text>
        <Quiet>{before.map(({ gesture }) => GESTURE_NAMES[gesture].toLowerCase()).join(', ')}</Quiet>
      </Column>
      <Quiet>{WORDS.whatDoesDone}</Quiet>
      <Row gap={16}>
        <Figures>{WORDS.presses(count)}</Figures>
        <Figures>
          {found.doubles.length > 0 ? WORDS.doublesUpMs(Math.round(Math.max(...found.doubles) * 1000)) : ''}
        </Figures>
      </Row>
      {count >= 6 && differs && (
        <Row>
          <Button kind="primary" onPress={() => onTimes(fit)}>
            {WORDS.takeTimesFit(Math.round(fit.double * 1000), Math.round(fit.hold * 1000))}
          </Button>
        </Row>
      )}
      {JSON.stringify(pedal.times) !== JSON.stringify(USUAL_TIMES) && (
        <Row>
          <Button kind="quiet" onPress={() => onTimes(USUAL_TIMES)}>
            {WORDS.backUsualTimes}
          </Button>
        </Row>
      )}
    </Column>
  );
}
