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
import { KIT, WORDS } from './words';

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
      <Title>{WORDS.title26}</Title>
      <Words>{WORDS.words15What}</Words>
      <Quiet>{WORDS.quiet13What}</Quiet>
      <Figures>{WORDS.figures0123456789All}</Figures>
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
      <Segments label={WORDS.oneOfFew} titled value={colour} choices={COLOURS} onChoose={setColour} />
      <Choose label={WORDS.oneOfMany} value={colour} choices={COLOURS} onChoose={setColour} />
      <Row gap={8} role="group" aria-label={WORDS.oneAfterOther} flexWrap="wrap">
        {COLOURS.map(({ value, name }) => (
          <Chip key={value} name={name} on={colour === value} onPress={() => setColour(value)} />
        ))}
      </Row>
      <Switch label={WORDS.onOrOff} on={on} onChange={setOn} />
    </Card>
  );
}

function Numbers() {
  const [level, setLevel] = useState(60);
  const [beats, setBeats] = useState(4);
  return (
    <Card title={KIT.numbers}>
      <Slider label={WORDS.level} value={level} low={0} high={100} step={5} unit="%" onChange={setLevel} />
      <Stepper
        name={WORDS.fadeIn}
        value={`${beats} beats`}
        less={WORDS.fadeInShorter}
        more={WORDS.fadeInLonger}
        onLess={beats > 1 ? () => setBeats(beats / 2) : undefined}
        onMore={beats < 16 ? () => setBeats(beats * 2) : undefined}
      />
      <Row gap={24}>
        <Fact name={WORDS.framesASecond} value="44" />
        <Fact name="universes" value="2" />
      </Row>
    </Card>
  );
}

function Forms() {
  const [name, setName] = useState(WORDS.harbourBlue);
  const [bars, setBars] = useState(16);
  return (
    <Card title={KIT.forms}>
      <Field label={WORDS.name} value={name} onChange={setName} placeholder={WORDS.whatCalled} />
      <Pair>
        <Typed label={WORDS.bars} hint="1 to 64" numeric value={bars} read={wholeNumber(1, 64)} onChange={setBars} />
        <Labelled label={WORDS.whatItMeans} hint={WORDS.hintStandsUnder}>
          <Words>{WORDS.beats(bars * 4)}</Words>
        </Labelled>
      </Pair>
    </Card>
  );
}

function States() {
  const rows: readonly (readonly ['$live' | '$warn' | '$fault' | '$faint', string, ReactNode])[] = [
    ['$live', WORDS.allIsWell, <Quiet key="live">{WORDS.whatDoesHow}</Quiet>],
    ['$warn', WORDS.worthALook, <Quiet key="warn">{WORDS.whatOffWhat}</Quiet>],
    ['$fault', WORDS.doesNotWork, <Quiet key="fault">{WORDS.whyWhatDo}</Quiet>],
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
