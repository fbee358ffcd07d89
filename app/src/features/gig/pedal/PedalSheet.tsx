// A pedal: its name, the times that tell its gestures apart, and a place to try it.

import { useEffect, useRef, useState } from 'react';
import { Text } from '@tamagui/core';
import { measured, suggestedTimes, USUAL_TIMES, type Edge, type Gesture, type Pedal } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { named, Typed } from '../../../ui/form';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { Slider } from '../../../ui/Slider';
import { GESTURE_NAMES } from './model';

type Props = { readonly show: Show; readonly pedal: Pedal; readonly onClose: () => void };

export function PedalSheet({ show, pedal, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const put = (change: Partial<Pedal>) => app.document.make({ type: 'store-pedal', pedal: { ...pedal, ...change } });
  const time = (name: keyof Pedal['times'], seconds: number) => put({ times: { ...pedal.times, [name]: seconds } });
  const remove = () => {
    app.document.make({ type: 'remove-pedal', pedal: pedal.id });
    say(`${pedal.name} is removed, with its switches.`, { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={pedal.name} onClose={onClose}>
      <Trainer show={show} pedal={pedal} onTimes={(times) => put({ times })} />
      <Slider label="Second press within" value={Math.round(pedal.times.double * 1000)} low={150} high={1000} step={10} unit="ms" onChange={(ms) => time('double', ms / 1000)} />
      <Slider label="A hold is longer than" value={Math.round(pedal.times.hold * 1000)} low={300} high={2000} step={10} unit="ms" onChange={(ms) => time('hold', ms / 1000)} />
      <Slider label="Bouncing is shorter than" value={Math.round(pedal.times.bounce * 1000)} low={0} high={60} step={1} unit="ms" onChange={(ms) => time('bounce', ms / 1000)} />
      <Typed label="Name" value={pedal.name} read={named} onChange={(name) => put({ name })} />
      <Row>
        <Button kind="quiet" onPress={remove}>
          Remove this pedal
        </Button>
      </Row>
    </Sheet>
  ); // prettier-ignore
}

/** What was recognised, live; and times that fit what the foot did. */
function Trainer({ show, pedal, onTimes }: Omit<Props, 'onClose'> & { readonly onTimes: (times: Pedal['times']) => void }) {
  const app = useHovlix();
  const edges = useRef<Edge[]>([]);
  const [seen, setSeen] = useState<readonly { readonly name: string; readonly gesture: Gesture; readonly at: number }[]>([]);
  const [count, setCount] = useState(0);
  const own = show.controls.flatMap((one) => (one.kind === 'switch' && one.pedal === pedal.id ? [one.id as string] : []));
  const names = show.controls.map(({ id, name }) => `${id} ${name}`).join('\n');
  const ids = own.join(' ');
  useEffect(() => {
    const mine = new Set(ids.split(' '));
    const nameOf = new Map(names.split('\n').map((line) => [line.slice(0, line.indexOf(' ')), line.slice(line.indexOf(' ') + 1)]));
    return app.controls.onFelt(({ control, down, at, gestures }) => {
      if (!mine.has(control)) return;
      if (edges.current.at(-1)?.down !== down) {
        edges.current = [...edges.current, { down, at }].slice(-200);
        setCount(edges.current.filter((edge) => edge.down).length);
      }
      const told = gestures.filter((gesture) => gesture !== 'release').map((gesture) => ({ name: nameOf.get(control) ?? '', gesture, at }));
      if (told.length > 0) setSeen((before) => [...told.reverse(), ...before].slice(0, 4));
    });
  }, [app, ids, names]);
  const [last, ...before] = seen;
  const found = measured(edges.current);
  const fit = suggestedTimes(found);
  const differs = JSON.stringify(fit) !== JSON.stringify(pedal.times);
  return (
    <Column gap={8} role="group" aria-label="Try it">
      <Words>Step as you would on stage: some single presses, some double, some long.</Words>
      <Column minHeight={72} justifyContent="center" paddingHorizontal={14} borderRadius={14} backgroundColor="$sunken">
        <Text fontFamily="$heading" fontWeight="650" fontSize={26} lineHeight={32} color={last ? '$doingText' : '$quiet'} testID="recognised">
          {last ? `${GESTURE_NAMES[last.gesture]}${own.length > 1 ? `: ${last.name}` : ''}` : 'Waiting for your foot'}
        </Text>
        <Quiet>{before.map(({ gesture }) => GESTURE_NAMES[gesture].toLowerCase()).join(', ')}</Quiet>
      </Column>
      <Quiet>What it does is done too: try it before the audience is there.</Quiet>
      <Row gap={16}>
        <Figures>{count} presses</Figures>
        <Figures>{found.doubles.length > 0 ? `doubles up to ${Math.round(Math.max(...found.doubles) * 1000)} ms` : ''}</Figures>
      </Row>
      {count >= 6 && differs && (
        <Row>
          <Button kind="primary" onPress={() => onTimes(fit)}>
            {`Use times that fit: ${Math.round(fit.double * 1000)} and ${Math.round(fit.hold * 1000)} ms`}
          </Button>
        </Row>
      )}
      {JSON.stringify(pedal.times) !== JSON.stringify(USUAL_TIMES) && (
        <Row>
          <Button kind="quiet" onPress={() => onTimes(USUAL_TIMES)}>
            Back to usual times
          </Button>
        </Row>
      )}
    </Column>
  );
} // prettier-ignore
