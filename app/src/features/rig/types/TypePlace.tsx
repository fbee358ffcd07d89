// The type editor: what a lamp is, its modes, its channels in the order the user likes, its wheels and emitters.

import { useMemo, useState } from 'react';
import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import {
  copyOfType,
  footprint,
  inMode,
  LAMP_KINDS,
  overlaps,
  patchedFixtures,
  typeFromChart,
  type Mode,
  type Profile,
} from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { zipFormats } from '../../../host/files/formats';
import { LAMP_PICTURE, pictureFromFile } from '../../../host/files/picture';
import { saveFile } from '../../../host/files/save-file';
import { useSession } from '../../../host/session';
import { Card } from '../../../ui/card';
import { Choose, decimal, named, remark, Typed, wholeNumber } from '../../../ui/form';
import { FileButton } from '../../../ui/FileButton';
import { LampPicture } from '../../../ui/LampPicture';
import { NotHere } from '../../../ui/NotHere';
import { usePalette } from '../../../ui/palette';
import { Button, Column, PlaceHead, Quiet, Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Switch } from '../../../ui/Switch';
import { ChannelList } from './ChannelList';
import { ChartSheet } from './ChartSheet';
import { ColourSlots, Emitters, GoboSlots } from './WheelForms';
import { WORDS } from './words';

export function TypePlace({ id }: { readonly id: string }) {
  const show = useShow((one) => one);
  const type = show?.profiles.find((profile) => profile.id === id);
  if (!show) return null;
  if (!type) return <NotHere what={WORDS.lampTypeNot} />;
  return <Editor show={show} type={type} />;
}

type Props = { readonly show: Show; readonly type: Profile };

function Editor({ show, type }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const say = useSession((session) => session.say);
  const [wanted, setMode] = useState<string>(type.modes[0]!.id);
  const [chart, setChart] = useState(false);
  const mode = type.modes.find(({ id }) => id === wanted) ?? type.modes[0]!;
  const put = (change: Partial<Profile>) => {
    // As it is by now: a picture takes a while to read.
    const now = app.document.store.getState().show?.profiles.find(({ id }) => id === type.id) ?? type;
    app.document.make({ type: 'add-profile', profile: { ...now, ...change } });
  };
  const putMode = (changed: Mode) => put({ modes: type.modes.map((one) => (one.id === changed.id ? changed : one)) });
  const copy = () => {
    const fresh = copyOfType(type, freshId());
    app.document.make({ type: 'add-profile', profile: fresh });
    router.replace(`/rig/type/${fresh.id}`);
    say(`A copy of ${type.model}, to change as you like.`);
  };
  const used = show.rigs.some((rig) => rig.fixtures.some((fixture) => fixture.profile === type.id));
  return (
    <ScrollArea>
      <PlaceHead title={type.model} under={type.maker}>
        <Button label={WORDS.backRig} onPress={() => router.replace('/rig')}>
          <ArrowLeft size={18} color={palette.text} aria-hidden />
          <Words fontWeight="600">{WORDS.rig}</Words>
        </Button>
      </PlaceHead>
      <Column paddingHorizontal={12} gap={12} maxWidth={760}>
        <Repack show={show} type={type} />
        <Card
          title={WORDS.theLamp}
          action={
            <Button kind="primary" onPress={() => router.replace(`/rig?add=${type.id}`)}>
              {WORDS.addLamps}
            </Button>
          }
        >
          <About type={type} onPut={put} />
        </Card>
        <Card title={WORDS.channels} action={<Button onPress={() => setChart(true)}>{WORDS.pasteAChart}</Button>}>
          <Modes show={show} type={type} mode={mode} onMode={setMode} onPut={put} onPutMode={putMode} />
          <ChannelList show={show} type={type} mode={mode} onPut={putMode} />
        </Card>
        <Card title={WORDS.colourWheel}>
          <ColourSlots type={type} onPut={put} />
        </Card>
        <Card title={WORDS.gobos}>
          <GoboSlots type={type} onPut={put} />
        </Card>
        <Card title={WORDS.emitters}>
          <Emitters type={type} onPut={put} />
        </Card>
        <Row gap={8} flexWrap="wrap">
          <Button onPress={() => void exported(type, say)}>{WORDS.saveAsGdtf}</Button>
          <Button onPress={copy}>{WORDS.copyThisType}</Button>
          <Button
            kind="quiet"
            disabled={used}
            onPress={() => {
              app.document.make({ type: 'remove-profile', profile: type.id });
              say(WORDS.isGone(type.model), { undo: app.document.takingBack() });
              router.replace('/rig');
            }}
          >
            {WORDS.removeType}
          </Button>
        </Row>
        {used && <Quiet>{WORDS.lampsTypeRig}</Quiet>}
      </Column>
      {chart && (
        <ChartSheet
          title={WORDS.chartOf(type.model)}
          onClose={() => setChart(false)}
          onUse={(read) => {
            put(typeFromChart(type, read, mode.id));
            const left = read.unsettled.length;
            say(
              `${read.channels.length} channels are in.${left > 0 ? ` ${left} ${left === 1 ? 'thing is' : 'things are'} to settle: channels marked below.` : ''}`,
              { undo: app.document.takingBack() },
            );
            setChart(false);
          }}
        />
      )}
    </ScrollArea>
  );
}

async function exported(type: Profile, say: (text: string) => void): Promise<void> {
  const { notInGdtf, writeGdtf } = await zipFormats();
  saveFile(`${type.maker}@${type.model}.gdtf`, writeGdtf(type), 'application/zip');
  const lost = notInGdtf(type);
  if (lost.length > 0) say(WORDS.gdtfHasNo(lost.join(', ')));
}

/** A mode that grew may have laid lamps over one another: said at once, with the way out. */
function Repack({ show, type }: Props) {
  const app = useHovlix();
  const rig = rigInUse(show);
  const patched = useMemo(() => patchedFixtures(rig, show.profiles), [rig, show.profiles]);
  const pairs = overlaps(patched).filter(([a, b]) => a.profile === type.id || b.profile === type.id);
  const over = patched.filter(
    ({ fixture, profile, mode }) => profile.id === type.id && fixture.address + footprint(mode) > 513,
  );
  if (pairs.length === 0 && over.length === 0) return null;
  const repack = () => {
    let room = rig;
    for (const mode of type.modes) {
      const lamps = patchedFixtures(room, show.profiles).filter(
        (one) => one.profile.id === type.id && one.mode.id === mode.id,
      );
      const { fixtures } = inMode(room, show.profiles, lamps, mode);
      room = { ...room, fixtures: room.fixtures.map((one) => fixtures.find(({ id }) => id === one.id) ?? one) };
    }
    const changed = room.fixtures.filter((one) => !rig.fixtures.includes(one));
    if (changed.length > 0) app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: changed });
  };
  return (
    <Row gap={12} padding={12} borderRadius={14} backgroundColor="$raised" justifyContent="space-between">
      <Words color="$fault" flexShrink={1}>
        {pairs.length > 0
          ? WORDS.shareChannelsNow(pairs[0]![0].name, pairs[0]![1].name)
          : WORDS.endsPast512(over[0]!.fixture.name)}
      </Words>
      <Button kind="primary" onPress={repack}>
        {WORDS.moveThemApart}
      </Button>
    </Row>
  );
}

type ModesProps = {
  readonly show: Show;
  readonly type: Profile;
  readonly mode: Mode;
  readonly onMode: (id: string) => void;
  readonly onPut: (change: Partial<Profile>) => void;
  readonly onPutMode: (mode: Mode) => void;
};

function Modes({ show, type, mode, onMode, onPut, onPutMode }: ModesProps) {
  const add = () => {
    const fresh: Mode = { ...mode, id: freshId() as Mode['id'], name: WORDS.copy(mode.name).slice(0, 120) };
    onPut({ modes: [...type.modes, fresh] });
    onMode(fresh.id);
  };
  const used = show.rigs.some(({ fixtures }) =>
    fixtures.some((one) => one.profile === type.id && one.mode === mode.id),
  );
  return (
    <>
      {type.modes.length > 1 && (
        <Choose
          label={WORDS.mode}
          value={mode.id}
          choices={type.modes.map((one) => ({ value: one.id, name: WORDS.ch(one.name, footprint(one)) }))}
          onChoose={onMode}
        />
      )}
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed<string>
            key={mode.id}
            label={WORDS.nameMode}
            value={mode.name}
            read={named}
            onChange={(name) => onPutMode({ ...mode, name })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            key={`${mode.id} menu`}
            label={WORDS.lampsMenu}
            value={mode.menu ?? ''}
            read={remark(200)}
            onChange={(menu) => onPutMode({ ...mode, menu: menu || undefined })}
          />
        </Column>
      </Row>
      <Row gap={8} flexWrap="wrap">
        <Button onPress={add} disabled={type.modes.length >= 64}>
          {WORDS.anotherMode}
        </Button>
        {type.modes.length > 1 && (
          <Button
            kind="quiet"
            disabled={used}
            onPress={() => onPut({ modes: type.modes.filter(({ id }) => id !== mode.id) })}
          >
            {WORDS.removeThisMode}
          </Button>
        )}
      </Row>
      {used && type.modes.length > 1 && <Quiet>{WORDS.lampsModeRig}</Quiet>}
    </>
  );
}

function About({ type, onPut }: { readonly type: Profile; readonly onPut: (change: Partial<Profile>) => void }) {
  const number = (key: 'beamAngle' | 'panRange' | 'tiltRange' | 'output', label: string, low: number, high: number) => (
    <Column flex={1} minWidth={100}>
      <Typed
        label={label}
        numeric
        value={type[key]}
        read={decimal(low, high)}
        onChange={(value) => onPut({ [key]: value })}
      />
    </Column>
  );
  const say = useSession((session) => session.say);
  const bring = async (file: File) => {
    const read = await pictureFromFile(file, LAMP_PICTURE);
    if ('wrong' in read) say(read.wrong, { tone: 'bad' });
    else onPut({ picture: read.data });
  };
  return (
    <>
      <Row gap={12} flexWrap="wrap">
        <LampPicture of={type} size={64} />
        <FileButton label={WORDS.pictureType} accept="image/*" onFiles={([file]) => file && void bring(file)}>
          {type.picture ? WORDS.anotherPicture : WORDS.pictureYourOwn}
        </FileButton>
        {type.picture && <Button onPress={() => onPut({ picture: undefined })}>{WORDS.asDrawn}</Button>}
      </Row>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed<string> label={WORDS.maker} value={type.maker} read={named} onChange={(maker) => onPut({ maker })} />
        </Column>
        <Column flex={1}>
          <Typed<string> label={WORDS.model} value={type.model} read={named} onChange={(model) => onPut({ model })} />
        </Column>
      </Row>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed<string>
            label={WORDS.shortForNames}
            value={type.label}
            read={(text) => {
              const label = text.trim();
              return label.length >= 1 && label.length <= 6 ? { value: label } : { wrong: WORDS.oneSixLetters };
            }}
            onChange={(label) => onPut({ label })}
          />
        </Column>
        <Column flex={1}>
          <Choose
            label={WORDS.kind}
            value={type.kind}
            choices={LAMP_KINDS.map((kind) => ({ value: kind, name: kind }))}
            onChoose={(kind) => onPut({ kind: LAMP_KINDS.find((one) => one === kind) ?? 'par' })}
          />
        </Column>
      </Row>
      <Row gap={12} flexWrap="wrap" alignItems="flex-start">
        {number('panRange', WORDS.panEndEnd, 0, 1080)}
        {number('tiltRange', WORDS.tiltEndEnd, 0, 360)}
        {number('beamAngle', WORDS.beam, 0.5, 180)}
        {number('output', WORDS.lightLedPar, 0, 50)}
        <Column flex={1} minWidth={100}>
          <Typed
            label={WORDS.watts}
            numeric
            value={type.watts ?? 0}
            read={wholeNumber(0, 20000)}
            onChange={(watts) => onPut({ watts: watts || undefined })}
          />
        </Column>
      </Row>
      <Switch
        label={WORDS.withoutShutterStrobe}
        on={type.strobesByLevel}
        onChange={(strobesByLevel) => onPut({ strobesByLevel })}
      />
      <Quiet>{WORDS.withoutDimmerRed}</Quiet>
    </>
  );
}
