// All masters: of the whole rig, of each role, of tempo, and of fade times.

import { router } from 'expo-router';
import { isFrozen } from '@hovlix/core/live';
import { rampAt } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { clockNow } from '../../host/conduct/gestures';
import { doAct } from '../../host/controls/act';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import { RoleFaders, SETTLED } from './RoleFaders';
import { WORDS } from './words';

const SPEEDS = [0.25, 0.5, 1, 2, 4];
const SPEED_NAMES: Readonly<Record<number, string>> = { 0.25: '1/4', 0.5: '1/2', 1: WORDS.asItIs, 2: '2×', 4: '4×' };

export function MastersSheet() {
  const app = useHovlix();
  const close = useSession((session) => session.setMasters);
  const show = useShow((one) => one);
  const live = useLive((state) => state);
  if (!show) return null;
  const { act } = app.conducting;
  const speed = (rate: number) => act({ type: 'speed', rate, beat: clockNow(app).beat });
  const reset = () => {
    act({ type: 'master', level: 1 });
    for (const { role, ramp } of live.roleMasters)
      if (rampAt(ramp, SETTLED) < 1) act({ type: 'role-master', role, level: 1 });
    speed(1);
    act({ type: 'fade-times', factor: 1 });
  };
  return (
    <Sheet title={WORDS.masters} onClose={() => close(false)}>
      <Slider
        label={WORDS.grandMaster}
        value={rampAt(live.master, SETTLED) * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        onChange={(value) => act({ type: 'master', level: value / 100 })}
      />
      <Column gap={10}>
        <Words fontWeight="600">{WORDS.roles}</Words>
        <RoleFaders show={show} />
        <Quiet>{WORDS.theyScaleLevel}</Quiet>
      </Column>
      <Column gap={10}>
        <Words fontWeight="600">{WORDS.speedWavesChases}</Words>
        <Segments
          label={WORDS.speedWavesChases}
          value={String(live.speed.rate)}
          choices={SPEEDS.map((rate) => ({ value: String(rate), name: SPEED_NAMES[rate]! }))}
          onChoose={(rate) => speed(Number(rate))}
        />
        <Slider
          label={WORDS.speed}
          value={live.speed.rate * 100}
          low={10}
          high={400}
          step={5}
          unit="%"
          onChange={(value) => speed(value / 100)}
        />
        <Quiet>{WORDS.affectsLooksOutside}</Quiet>
      </Column>
      <Slider
        label={WORDS.fadeTimes}
        value={live.fadeTimes * 100}
        low={0}
        high={400}
        step={5}
        unit="%"
        onChange={(value) => act({ type: 'fade-times', factor: value / 100 })}
      />
      <BlackoutFade />
      <Freeze />
      <InHand show={show} />
      <Row gap={8} flexWrap="wrap">
        <Button onPress={reset}>{WORDS.allTo100}</Button>
        <Button
          onPress={() => {
            close(false);
            router.push('/gig/flashes');
          }}
        >
          {show.safety.on ? WORDS.flashSafetySecond(show.safety.most) : WORDS.flashSafetyOff}
        </Button>
      </Row>
    </Sheet>
  );
}

const BLACKOUT_FADES = [0, 1, 3, 8];

/** Whether a blackout cuts or fades, on this screen; its end does the same. */
function BlackoutFade() {
  const fade = useSession((session) => session.blackoutFade);
  const put = useSession((session) => session.setBlackoutFade);
  return (
    <Column gap={10}>
      <Words fontWeight="600">{WORDS.blackout}</Words>
      <Segments
        label={WORDS.blackout}
        value={String(fade)}
        choices={BLACKOUT_FADES.map((time) => ({ value: String(time), name: time === 0 ? 'Cuts' : WORDS.inS(time) }))}
        onChoose={(time) => put(Number(time))}
      />
    </Column>
  );
}

/** All light stays as it is, and goes on within a beat. */
function Freeze() {
  const app = useHovlix();
  const frozen = useLive(isFrozen);
  return (
    <Column gap={6}>
      <Switch label={WORDS.freezeTheLight} on={frozen} onChange={() => doAct(app, { act: 'freeze', to: 'toggle' })} />
      <Quiet>{WORDS.staysAsNow}</Quiet>
    </Column>
  );
}

/** What is in hand, role by role, with a way to give each back. */
function InHand({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const hands = useLive((live) => live.hands);
  const held = show.roles.filter(({ id }) => hands.some((one) => one.on && one.value.role === id));
  if (!hands.some((one) => one.on)) return null;
  return (
    <Column gap={10} role="group" aria-label={WORDS.byHand}>
      <Words fontWeight="600">{WORDS.byHand}</Words>
      <Row gap={8} flexWrap="wrap">
        {held.map(({ id, name }) => (
          <Button key={id} onPress={() => app.draft.letGoOf(id, clockNow(app).pulse)}>
            {WORDS.release(name)}
          </Button>
        ))}
        <Button onPress={() => app.draft.close(clockNow(app).pulse)}>{WORDS.releaseAll}</Button>
      </Row>
    </Column>
  );
}
