// The pieces that screens are made of, each once. Nothing leads here; whoever builds a screen looks here first.

import { useState, type ReactNode } from 'react';
import { Fact, Card, State } from '../../ui/card';
import { Chip } from '../../ui/Chip';
import { Field } from '../../ui/Field';
import { Choose, Labelled, Pair, Typed, wholeNumber } from '../../ui/form';
import { Hold } from '../../ui/Hold';
import { Button, Column, Figures, PlaceHead, Quiet, Row, Title, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { Slider } from '../../ui/Slider';
import { Stepper } from '../../ui/Stepper';
import { Switch } from '../../ui/Switch';
import { KIT } from './words';

export function KitPlace() {
  return (
    <ScrollArea>
      <PlaceHead title={KIT.title} under={KIT.under} />
      <Column paddingHorizontal={12} gap={12} paddingBottom={16} maxWidth={720}>
        <Texts />
        <Buttons />
        <OneOfMany />
        <Numbers />
        <Forms />
        <States />
        <Over />
      </Column>
    </ScrollArea>
  );
}

function Texts() {
  return (
    <Card title={KIT.texts}>
      <Title>Title, 26</Title>
      <Words>Words, 15: what is read.</Words>
      <Quiet>Quiet, 13: what helps.</Quiet>
      <Figures>Figures 0123456789, all as wide</Figures>
    </Card>
  );
}

function Buttons() {
  const [on, setOn] = useState(false);
  const [held, setHeld] = useState(0);
  return (
    <Card title={KIT.buttons} action={<Button>{KIT.action}</Button>}>
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary">{KIT.primary}</Button>
        <Button pressed={on} onPress={() => setOn(!on)}>
          {on ? KIT.pressed : KIT.plain}
        </Button>
        <Button kind="quiet">{KIT.quiet}</Button>
        <Button disabled>{KIT.disabled}</Button>
        <Hold onHeld={() => setHeld(held + 1)}>{KIT.hold}</Hold>
      </Row>
      <Quiet testID="held">{KIT.held(held)}</Quiet>
    </Card>
  );
}

const COLOURS = [
  { value: 'red', name: 'Red' },
  { value: 'green', name: 'Green' },
  { value: 'blue', name: 'Blue' },
] as const;
type Colour = (typeof COLOURS)[number]['value'];

function OneOfMany() {
  const [colour, setColour] = useState<Colour>('red');
  const [on, setOn] = useState(true);
  return (
    <Card title={KIT.choices}>
      <Segments label="One of few" titled value={colour} choices={COLOURS} onChoose={setColour} />
      <Choose label="One of many" value={colour} choices={COLOURS} onChoose={setColour} />
      <Row gap={8} role="group" aria-label="One after the other" flexWrap="wrap">
        {COLOURS.map(({ value, name }) => (
          <Chip key={value} name={name} on={colour === value} onPress={() => setColour(value)} />
        ))}
      </Row>
      <Switch label="On or off" on={on} onChange={setOn} />
    </Card>
  );
}

function Numbers() {
  const [level, setLevel] = useState(60);
  const [beats, setBeats] = useState(4);
  return (
    <Card title={KIT.numbers}>
      <Slider label="Level" value={level} low={0} high={100} step={5} unit="%" onChange={setLevel} />
      <Stepper
        name="Fade in"
        value={`${beats} beats`}
        less="Fade in shorter"
        more="Fade in longer"
        onLess={beats > 1 ? () => setBeats(beats / 2) : undefined}
        onMore={beats < 16 ? () => setBeats(beats * 2) : undefined}
      />
      <Row gap={24}>
        <Fact name="frames a second" value="44" />
        <Fact name="universes" value="2" />
      </Row>
    </Card>
  );
}

function Forms() {
  const [name, setName] = useState('Harbour blue');
  const [bars, setBars] = useState(16);
  return (
    <Card title={KIT.forms}>
      <Field label="Name" value={name} onChange={setName} placeholder="What it is called" />
      <Pair>
        <Typed label="Bars" hint="1 to 64" numeric value={bars} read={wholeNumber(1, 64)} onChange={setBars} />
        <Labelled label="What it means" hint="A hint stands under it.">
          <Words>{bars * 4} beats</Words>
        </Labelled>
      </Pair>
    </Card>
  );
}

function States() {
  const rows: readonly (readonly ['$live' | '$warn' | '$fault' | '$faint', string, ReactNode])[] = [
    ['$live', 'All is well', <Quiet key="live">What it does, and how well.</Quiet>],
    ['$warn', 'Worth a look', <Quiet key="warn">What is off, and what to do.</Quiet>],
    ['$fault', 'It does not work', <Quiet key="fault">Why, and what to do.</Quiet>],
    ['$faint', 'Off', null],
  ];
  return (
    <Card title={KIT.states}>
      {rows.map(([tone, word, more]) => (
        <State key={tone} colour={tone} word={word}>
          {more}
        </State>
      ))}
    </Card>
  );
}

function Over() {
  const [open, setOpen] = useState(false);
  return (
    <Card title={KIT.over}>
      <Row>
        <Button onPress={() => setOpen(true)}>{KIT.openSheet}</Button>
      </Row>
      {open && (
        <Sheet title={KIT.sheet} onClose={() => setOpen(false)}>
          <Words>{KIT.inSheet}</Words>
          <Button kind="primary" onPress={() => setOpen(false)}>
            {KIT.done}
          </Button>
        </Sheet>
      )}
    </Card>
  );
}
