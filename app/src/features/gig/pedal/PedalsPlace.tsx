// Pedals, keys, knobs: everything that is bound, what it does, and what is bound twice.

import { useState } from 'react';
import { useRouter } from 'expo-router';
import { View } from '@tamagui/core';
import { conflictsOf, sourceWords, type Control, type Pedal } from '@hovlix/core/gig';
import { actName, turnName } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { useHovlix, useMay, useShow } from '../../../host/hovlix';
import { Card } from '../../../ui/card';
import { ComputerMidi } from '../../midi/ComputerMidi';
import { ClockSwitches } from '../../midi/ClockSwitches';
import { MidiSwitch } from '../../midi/MidiSwitch';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { GigPage } from '../stage/GigPage';
import { BINDINGS } from './bindings-words';
import { ControlSheet } from './ControlSheet';
import { freshFader, freshPedal, freshSwitch, LAYOUTS } from './fresh';
import { PedalSheet } from './PedalSheet';
import { WORDS } from './words';

export function PedalsPlace() {
  const app = useHovlix();
  const router = useRouter();
  const show = useShow((one) => one);
  const may = useMay('operator');
  const [open, setOpen] = useState<Control['id'] | null>(null);
  const [times, setTimes] = useState<Pedal['id'] | null>(null);
  if (!show) return null;
  const shown = show.controls.find(({ id }) => id === open);
  const trained = show.pedals.find(({ id }) => id === times);
  const add = (control: Control) => {
    app.document.make({ type: 'store-control', control });
    setOpen(control.id);
  };
  const addPedal = (switches: number) => {
    const { pedal, controls } = freshPedal(show, switches);
    app.document.together([
      { type: 'store-pedal', pedal },
      ...controls.map((control) => ({ type: 'store-control' as const, control })),
    ]);
  };
  const others = show.controls.filter((one) => one.kind === 'fader' || !one.pedal);
  const conflicts = conflictsOf(show.controls);
  return (
    <>
      <GigPage
        title={WORDS.pedalsAndMidi}
        action={<Button onPress={() => router.push('/gig/bindings')}>{BINDINGS.open}</Button>}
      >
        {conflicts.map(([a, b]) => (
          <Quiet key={`${a.id} ${b.id}`} role="alert" color="$warn">
            {WORDS.bothHearOne(a.name, b.name, sourceWords(a.source))}
          </Quiet>
        ))}
        {show.pedals.map((pedal) => (
          <Card
            key={pedal.id}
            title={pedal.name}
            action={
              may && (
                <Button label={WORDS.settingsOf(pedal.name)} onPress={() => setTimes(pedal.id)}>
                  {WORDS.tryIt}
                </Button>
              )
            }
          >
            <Rows
              show={show}
              controls={show.controls.filter((one) => one.kind === 'switch' && one.pedal === pedal.id)}
              onOpen={setOpen}
            />
            {may && (
              <Row>
                <Button kind="quiet" onPress={() => add(freshSwitch(show, pedal.id))}>
                  {WORDS.addASwitch}
                </Button>
              </Row>
            )}
          </Card>
        ))}
        {may && (
          <Card title={show.pedals.length === 0 ? WORDS.yourPedal : WORDS.anotherPedal}>
            <Quiet>{WORDS.howManySwitches}</Quiet>
            <Row gap={8} flexWrap="wrap">
              {LAYOUTS.map((count) => (
                <Button
                  key={count}
                  label={WORDS.pedalWith(count, count === 1 ? 'switch' : 'switches')}
                  onPress={() => addPedal(count)}
                >
                  {String(count)}
                </Button>
              ))}
            </Row>
          </Card>
        )}
        <Card title={WORDS.keysPadsKnobs}>
          {others.length === 0 && <Quiet>{WORDS.keyNoteOr}</Quiet>}
          <Rows show={show} controls={others} onOpen={setOpen} />
          {may && (
            <Row gap={8} flexWrap="wrap">
              <Button onPress={() => add(freshSwitch(show))}>{WORDS.addSwitchOr}</Button>
              <Button onPress={() => add(freshFader(show))}>{WORDS.addAKnob}</Button>
            </Row>
          )}
        </Card>
        <Card title={WORDS.midi}>
          <ComputerMidi />
          <MidiSwitch />
          <ClockSwitches />
        </Card>
      </GigPage>
      {shown && may && <ControlSheet key={shown.id} show={show} control={shown} onClose={() => setOpen(null)} />}
      {trained && may && <PedalSheet key={trained.id} show={show} pedal={trained} onClose={() => setTimes(null)} />}
    </>
  );
}

type RowsProps = {
  readonly show: Show;
  readonly controls: readonly Control[];
  readonly onOpen: (id: Control['id']) => void;
};

function Rows({ show, controls, onOpen }: RowsProps) {
  if (controls.length === 0) return null;
  return (
    <Column role="list" aria-label={WORDS.controls}>
      {controls.map((control) => (
        <div key={control.id} role="listitem">
          <View
            width="100%"
            render="button"
            aria-label={WORDS.change(control.name)}
            onPress={() => onOpen(control.id)}
            minHeight={52}
            paddingVertical={6}
            paddingHorizontal={0}
            alignItems="flex-start"
            borderWidth={0}
            borderBottomWidth={1}
            borderColor="$line"
            backgroundColor="transparent"
            cursor="pointer"
          >
            <Row gap={8} width="100%" justifyContent="space-between">
              <Words fontWeight="600" numberOfLines={1}>
                {control.name}
              </Words>
              <Quiet numberOfLines={1} color={control.source ? '$quiet' : '$warn'}>
                {sourceWords(control.source)}
              </Quiet>
            </Row>
            <Quiet textAlign="left" numberOfLines={2}>
              {controlWords(show, control)}
            </Quiet>
          </View>
        </div>
      ))}
    </Column>
  );
}

function controlWords(show: Show, control: Control): string {
  if (control.kind === 'fader') return turnName(show, control.turns);
  const { press, double, hold, release } = control.does;
  const said = [
    ['', press],
    ['twice: ', double],
    ['hold: ', hold],
    ['release: ', release],
  ] as const;
  const words = said.flatMap(([word, acts]) =>
    acts.length > 0 ? [word + acts.map((act) => actName(show, act)).join(' + ')] : [],
  );
  return words.join(' · ') || 'does nothing yet';
}
