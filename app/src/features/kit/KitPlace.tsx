// The pieces that screens are made of, each once. Nothing leads here; whoever builds a screen looks here first.

import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { Fact, Card, State } from '../../ui/card';
import { Chip } from '../../ui/Chip';
import { Field } from '../../ui/Field';
import { Entry, typed, useEntries } from '../../ui/entry';
import { Choose, Labelled, named, Pair, Typed, wholeNumber } from '../../ui/form';
import { Hold } from '../../ui/Hold';
import { ColourInput, TextArea } from '../../ui/inputs';
import { BackLink, ButtonLink } from '../../ui/links';
import { Button, Column, Figures, PlaceHead, Quiet, Row, Title, Words } from '../../ui/pieces';
import { Range } from '../../ui/Range';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { Slider } from '../../ui/Slider';
import { Stepper } from '../../ui/Stepper';
import { Switch } from '../../ui/Switch';
import { TabRow } from '../../ui/TabRow';
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
        <Sent />
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
      <Row gap={12} flexWrap="wrap" role="group" aria-label={WORDS.waysOn}>
        <BackLink href="/songs" label={KIT.back} />
        <ButtonLink href="/gig" kind="primary">
          {KIT.primary}
        </ButtonLink>
        <ButtonLink href="/looks">{KIT.plain}</ButtonLink>
        <ButtonLink href="/rig" kind="words">
          {WORDS.words}
        </ButtonLink>
        <ButtonLink href="/connect" kind="quiet">
          {WORDS.underlined}
        </ButtonLink>
      </Row>
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
      <TabRow
        label={WORDS.tabs}
        tabs={COLOURS.map((tab) => ({ ...tab, marked: tab.value === 'red' }))}
        value={colour}
        onChoose={setColour}
      />
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
      <Range aria-label={WORDS.fader} most={100} value={level} onChange={setLevel} />
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
  const [colour, setColour] = useState('#4cc9b0');
  return (
    <Card title={KIT.forms}>
      <Field label={WORDS.name} value={name} onChange={setName} placeholder={WORDS.whatCalled} />
      <Pair>
        <Typed label={WORDS.bars} hint="1 to 64" numeric value={bars} read={wholeNumber(1, 64)} onChange={setBars} />
        <Labelled label={WORDS.whatItMeans} hint={WORDS.hintStandsUnder}>
          <Words>{WORDS.beats(bars * 4)}</Words>
        </Labelled>
      </Pair>
      <TextArea aria-label={WORDS.severalLines} rows={3} value={name} onChange={setName} />
      <ColourInput label={WORDS.colour} value={colour} onChange={setColour} />
    </Card>
  );
}

const ENTRIES = z.object({ name: typed(named), bars: typed(wholeNumber(1, 64)) });

function Sent() {
  const [gone, setGone] = useState('');
  const { control, handleSubmit } = useEntries(ENTRIES, { name: WORDS.harbourBlue, bars: '16' });
  const send = handleSubmit(({ name, bars }) => setGone(KIT.gone(name, bars)));
  return (
    <Card title={KIT.sent}>
      <Pair>
        <Entry control={control} name="name" label={WORDS.title} onEnter={() => void send()} />
        <Entry control={control} name="bars" label={WORDS.length} numeric onEnter={() => void send()} />
      </Pair>
      <Row gap={12}>
        <Button kind="primary" onPress={() => void send()}>
          {KIT.send}
        </Button>
        <Quiet role="status">{gone}</Quiet>
      </Row>
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
