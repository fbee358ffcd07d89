// A pedal: its name, the times that tell its gestures apart, and a place to try it.

import type { Pedal } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { named, Typed } from '../../../ui/form';
import { Button, Row } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { Slider } from '../../../ui/Slider';
import { Trainer } from './Trainer';

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
