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
import { WORDS } from './words';

type Props = { readonly show: Show; readonly pedal: Pedal; readonly onClose: () => void };

export function PedalSheet({ show, pedal, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const put = (change: Partial<Pedal>) => app.document.make({ type: 'store-pedal', pedal: { ...pedal, ...change } });
  const time = (name: keyof Pedal['times'], seconds: number) => put({ times: { ...pedal.times, [name]: seconds } });
  const remove = () => {
    app.document.make({ type: 'remove-pedal', pedal: pedal.id });
    say(WORDS.removedItsSwitches(pedal.name), { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={pedal.name} onClose={onClose}>
      <Trainer show={show} pedal={pedal} onTimes={(times) => put({ times })} />
      <Slider
        label={WORDS.secondPressWithin}
        value={Math.round(pedal.times.double * 1000)}
        low={100}
        high={1000}
        most={1500}
        step={10}
        unit="ms"
        onChange={(ms) => time('double', ms / 1000)}
      />
      <Slider
        label={WORDS.holdLongerThan}
        value={Math.round(pedal.times.hold * 1000)}
        low={200}
        high={2000}
        most={3000}
        step={10}
        unit="ms"
        onChange={(ms) => time('hold', ms / 1000)}
      />
      <Slider
        label={WORDS.bouncingShorterThan}
        value={Math.round(pedal.times.bounce * 1000)}
        low={0}
        high={60}
        step={1}
        unit="ms"
        onChange={(ms) => time('bounce', ms / 1000)}
      />
      <Typed label={WORDS.name} value={pedal.name} read={named} onChange={(name) => put({ name })} />
      <Row>
        <Button kind="quiet" onPress={remove}>
          {WORDS.removeThisPedal}
        </Button>
      </Row>
    </Sheet>
  );
}
