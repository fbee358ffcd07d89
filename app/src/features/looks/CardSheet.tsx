// What can be done with a look or a chase beside turning it on.

import { router } from 'expo-router';
import { useState } from 'react';
import { hexFromChromaticity, chromaticityFromHue } from '@hovlix/core/colour';
import { hueOf, mainColour, recoloured, type Chase, type Look } from '@hovlix/core/light';
import { nextNumber, type Show } from '@hovlix/core/show';
import { View } from '@tamagui/core';
import { freshId } from '../../host/fresh-id';
import { onlyLook } from '../../host/conduct/gestures';
import { useHovlix, useLive } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Choose, named, Pair, Typed, wholeNumber } from '../../ui/form';
import { useTints } from '../../ui/palette';
import { Button, Column, Quiet, Row } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { SpeedRow } from '../../ui/SpeedRow';
import { FadeForm } from './FadeForm';
import { foldersOf, isChase, valuesInSteps } from './model';
import { TimesForm } from './TimesForm';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly play: Look | Chase; readonly onClose: () => void };

export function CardSheet({ show, play, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const list: readonly (Look | Chase)[] = isChase(play) ? show.chases : show.looks;
  const place = list.findIndex((one) => one.id === play.id);
  const put = (change: object) => {
    const next = Object.fromEntries(
      Object.entries({ ...play, ...change }).filter((entry) => entry[1] !== undefined),
    ) as Look | Chase;
    if (isChase(next)) app.document.make({ type: 'store-chase', chase: next });
    else app.document.make({ type: 'store-look', look: next });
  };
  const copy = (change: object, name: string) => {
    const fresh = { ...play, ...change, id: freshId() as Look['id'], name, number: nextNumber(show) };
    if (isChase(fresh)) app.document.make({ type: 'store-chase', chase: fresh });
    else app.document.make({ type: 'store-look', look: fresh });
    say(WORDS.copy(name, play.name), { undo: app.document.takingBack() });
    onClose();
  };
  const remove = () => {
    app.document.make({ type: 'remove-look', look: play.id });
    say(WORDS.goneFromSongs(play.name), { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={play.name} onClose={onClose}>
      <Row gap={8} flexWrap="wrap">
        <Button
          kind="primary"
          onPress={() => router.push(isChase(play) ? `/looks/chase/${play.id}` : `/looks/${play.id}`)}
        >
          {isChase(play) ? WORDS.changeTheSteps : WORDS.changeTheLight}
        </Button>
        <Button onPress={() => onlyLook(app, play.id)}>{WORDS.onlyThis}</Button>
        <Button onPress={() => copy({}, WORDS.copyOf(play.name.slice(0, 100)))}>{WORDS.duplicate}</Button>
      </Row>
      {!isChase(play) && <Recolour look={play} onColour={(values, name) => copy({ values }, name)} />}
      <Speed play={play} />
      <Typed label={WORDS.name} value={play.name} read={named} onChange={(name) => put({ name })} />
      <Pair>
        <Typed
          label={WORDS.number}
          numeric
          value={play.number}
          read={(text) => freeNumber(text, show, play)}
          onChange={(number) => put({ number })}
        />
        <Folder show={show} play={play} onPut={put} />
      </Pair>
      <Tints tint={play.tint} onTint={(tint) => put({ tint })} />
      <FadeForm fades={play} holds={!isChase(play)} onChange={(change) => put(change)} />
      {isChase(play) ? (
        <TimesForm
          show={show}
          values={valuesInSteps(show, play)}
          said={play}
          timed={false}
          onSay={({ snaps }) => put({ snaps })}
        />
      ) : (
        <TimesForm
          show={show}
          values={play.values}
          said={play}
          onSay={({ times, snaps }) => put({ times, snaps })}
          onValues={(values) => put({ values })}
        />
      )}
      <Row gap={8} flexWrap="wrap">
        <Button
          disabled={place <= 0}
          onPress={() => app.document.make({ type: 'move-look', look: play.id, before: list[place - 1]!.id })}
        >
          {WORDS.earlier}
        </Button>
        <Button
          disabled={place >= list.length - 1}
          onPress={() => app.document.make({ type: 'move-look', look: play.id, before: list[place + 2]?.id ?? null })}
        >
          {WORDS.later}
        </Button>
        <Button kind="quiet" onPress={remove}>
          {WORDS.delete}
        </Button>
      </Row>
    </Sheet>
  );
}

function freeNumber(text: string, show: Show, play: Look | Chase) {
  const read = wholeNumber(1, 9999)(text);
  if ('wrong' in read) return read;
  const other = [...show.looks, ...show.chases].find((one) => one.number === read.value && one.id !== play.id);
  return other ? { wrong: WORDS.hasNumber(other.name, read.value) } : read;
}

const HUES = Array.from({ length: 12 }, (_, i) => i * 30);

/** A copy in another colour: the hues turn together, whites stay. */
function Recolour({
  look,
  onColour,
}: {
  readonly look: Look;
  readonly onColour: (values: Look['values'], name: string) => void;
}) {
  const main = mainColour(look.values);
  const hue = main && hueOf(main);
  if (hue === undefined) return null;
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.duplicateAnotherColour}</Quiet>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.duplicateAnotherColour}>
        {HUES.map((wanted) => {
          const colour = chromaticityFromHue(wanted, 1);
          const turn = (hueOf(colour) ?? 0) - hue;
          return (
            <View
              key={wanted}
              render="button"
              aria-label={WORDS.hueDegrees(wanted)}
              onPress={() =>
                onColour(
                  [...recoloured(look.values, turn)],
                  `${look.name.slice(0, 100)}, ${COLOUR_NAMES[wanted / 30]!}`,
                )
              }
              width={44}
              height={44}
              borderRadius={22}
              borderWidth={2}
              borderColor="$line"
              cursor="pointer"
              style={{ background: hexFromChromaticity(colour) }}
            />
          );
        })}
      </Row>
    </Column>
  );
}

const COLOUR_NAMES = [
  'red',
  'orange',
  'yellow',
  'lime',
  'green',
  'mint',
  'cyan',
  'azure',
  'blue',
  'violet',
  'magenta',
  'pink',
];

/** How fast its waves or steps run while it is on. */
function Speed({ play }: { readonly play: Look | Chase }) {
  const running = useLive((live) => live.standing.some((one) => one.look === play.id && one.on));
  if (!running) return null;
  return (
    <Column gap={4}>
      <Quiet fontWeight="600">{WORDS.speedWhile}</Quiet>
      <SpeedRow id={play.id} name={play.name} />
    </Column>
  );
}

const OTHER = '+';

function Folder({
  show,
  play,
  onPut,
}: {
  readonly show: Show;
  readonly play: Look | Chase;
  readonly onPut: (change: object) => void;
}) {
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <Typed
        label={WORDS.newFolder}
        value=""
        read={(text) => (text.trim().length > 60 ? { wrong: WORDS.most60Letters } : { value: text.trim() })}
        patient
        onChange={(folder) => {
          onPut({ folder: folder || undefined });
          setNaming(false);
        }}
        onLeave={() => setNaming(false)}
      />
    );
  return (
    <Column minWidth={0}>
      <Choose
        label={WORDS.folder}
        value={play.folder ?? ''}
        choices={[
          { value: '', name: 'none' },
          ...foldersOf(show).map((folder) => ({ value: folder, name: folder })),
          { value: OTHER, name: 'a new one …' },
        ]}
        onChoose={(folder) => (folder === OTHER ? setNaming(true) : onPut({ folder: folder || undefined }))}
      />
    </Column>
  );
}

function Tints({
  tint,
  onTint,
}: {
  readonly tint: number | undefined;
  readonly onTint: (tint: number | undefined) => void;
}) {
  const tints = useTints();
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.colourTag}</Quiet>
      <Row gap={4} flexWrap="wrap" role="group" aria-label={WORDS.colourTag}>
        {tints.map((colour, i) => (
          <View
            key={colour}
            render="button"
            aria-label={WORDS.tag(i + 1)}
            aria-pressed={tint === i}
            onPress={() => onTint(tint === i ? undefined : i)}
            width={44}
            height={44}
            borderRadius={14}
            borderWidth={0}
            backgroundColor="transparent"
            alignItems="center"
            justifyContent="center"
            cursor="pointer"
          >
            <View
              width={tint === i ? 32 : 22}
              height={tint === i ? 32 : 22}
              borderRadius={16}
              borderWidth={tint === i ? 3 : 0}
              borderColor="$text"
              backgroundColor={colour}
            />
          </View>
        ))}
      </Row>
    </Column>
  );
}
