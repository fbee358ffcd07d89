// Where a look is made: who is meant, what they should do, all of it seen on stage as it is shaped, then stored.

import { useEffect, useState } from 'react';
import { router } from 'expo-router';
import { useMedia } from '@tamagui/core';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import {
  familiesOf,
  heardBy,
  saidAgain,
  setsAnything,
  withFaders,
  type Faders,
  type LookValue,
} from '@hovlix/core/light';
import { rigInUse, type Show } from '@hovlix/core/show';
import { beats } from '@hovlix/core/units';
import { useDraft, useHovlix, useLink, useLive, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { decimal, Pair, Typed } from '../../../ui/form';
import { NotHere } from '../../../ui/NotHere';
import { usePalette } from '../../../ui/palette';
import { Button, Column, PlaceHead, Quiet, Row, Words, Grid } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { TabRow } from '../../../ui/TabRow';
import { FadersPanel } from '../faders/FadersPanel';
import { chosenLamps, draftLines, familyOf } from './model';
import { OrderSheet, TAB_NAMES, useTabOrder, type Tab } from './order';
import { Panel } from './Panels';
import { SoundPanel } from './SoundPanel';
import { StoreSheet } from './StoreSheet';
import { WavesPanel } from './WavesPanel';
import { WhoRow } from './WhoRow';
import { WORDS } from './words';

export function EditPlace({ id }: { readonly id: string }) {
  const { draft } = useHovlix();
  const show = useShow((one) => one);
  const look = show?.looks.find((one) => one.id === id);
  // Before the conductor has answered, what is taken in hand would be lost.
  const found = useLink((link) => link.conductor !== 'looking');
  const ready = show !== undefined && found;
  // What another visit left in hand is known as soon as the conductor has answered.
  const inHand = useLive((live) => live.hands.some((one) => one.on));
  useEffect(() => {
    if (ready) draft.open(look ?? null);
    // The look as it is when the place opens; storing it must not begin anew.
    // oxlint-disable-next-line react/exhaustive-deps -- see above
  }, [draft, ready, id]);
  useEffect(() => {
    if (ready && inHand && id === 'new' && draft.store.getState().past.length === 0) draft.open(null);
  }, [draft, ready, inHand, id]);
  if (!show) return null;
  if (id !== 'new' && !look) return <NotHere what={WORDS.lookNotShow} />;
  return <Editor show={show} title={look?.name ?? WORDS.newLook} />;
}

type EditorProps = {
  readonly show: Show;
  readonly title: string;
  /** Where it is stored without a question, and what leaving does; without, it becomes a look. */
  readonly onStore?: () => void;
  readonly onLeave?: () => void;
};

export function Editor({ show, title, onStore, onLeave }: EditorProps) {
  const palette = usePalette();
  const { wide } = useMedia();
  const say = useSession((session) => session.say);
  const values = useDraft((state) => state.values);
  const chosen = useDraft((state) => state.chosen);
  const mark = useSession((session) => session.mark);
  const [storing, setStoring] = useState(false);
  useEffect(() => mark(chosen), [mark, chosen]);
  useEffect(() => () => mark([]), [mark]);
  const leave = () => {
    router.replace('/looks');
    if (values.length > 0) say(WORDS.whatYouChanged, { undo: () => router.push('/looks/new') });
  };
  const who = <WhoRow show={show} />;
  const what = <What show={show} values={values} />;
  return (
    <ScrollArea>
      <PlaceHead title={title}>
        <Button label={WORDS.back} kind="quiet" onPress={onLeave ?? leave}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
        <Button kind="primary" disabled={values.length === 0 && !onStore} onPress={onStore ?? (() => setStoring(true))}>
          {WORDS.store}
        </Button>
      </PlaceHead>
      {wide ? (
        <Grid gridTemplateColumns="minmax(320px, 2fr) 3fr" gap={12} maxWidth={1180}>
          {who}
          {what}
        </Grid>
      ) : (
        <Column gap={16}>
          {who}
          {what}
        </Column>
      )}
      {storing && <StoreSheet show={show} onClose={() => setStoring(false)} />}
    </ScrollArea>
  );
}

function What({ show, values }: { readonly show: Show; readonly values: readonly LookValue[] }) {
  const { draft } = useHovlix();
  const chosen = useDraft((state) => state.chosen);
  const order = useTabOrder((state) => state.order);
  const [tab, setTab] = useState<Tab>(order[0]!);
  const [sorting, setSorting] = useState(false);
  const casting = rigInUse(show).casting;
  const lamps = chosenLamps(show, chosen);
  const who = draft.whos()[0];
  const heard = who ? heardBy(values, who, casting) : ({} as LookValue);
  const touched = familiesOf(heard, familyOf);
  const moved = { waves: heard.waves, sound: heard.followers };
  const says = (one: Tab) =>
    one === 'waves' || one === 'sound' ? (moved[one]?.length ?? 0) > 0 : one !== 'faders' && touched.has(one);
  const onFaders = (attribute: string, of: typeof lamps, [set]: Faders) => {
    const ids = of.map(({ fixture }) => fixture.id);
    draft.put(withFaders(values, ids, attribute, set!, casting), WORDS.faders(attribute));
  };
  return (
    <Column gap={14} minWidth={0}>
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={12}>
          <TabRow
            label={WORDS.whatTheyDo}
            tabs={order.map((value) => ({ value, name: TAB_NAMES[value], marked: says(value) }))}
            value={tab}
            onChoose={setTab}
          />
          <Chip small name={WORDS.order} on={false} onPress={() => setSorting(true)} />
        </Row>
      </ScrollArea>
      <Column paddingHorizontal={12} gap={16}>
        {lamps.length === 0 ? (
          <Quiet>{WORDS.chooseRoleOr}</Quiet>
        ) : tab === 'waves' ? (
          <WavesPanel lamps={lamps} heard={heard} onSay={draft.say} />
        ) : tab === 'sound' ? (
          <SoundPanel lamps={lamps} heard={heard} onSay={draft.say} />
        ) : tab === 'faders' ? (
          <FadersPanel lamps={lamps} casting={casting} sets={[values]} onMove={onFaders} />
        ) : (
          <Panel family={tab} lamps={lamps} heard={heard} onSay={draft.say} />
        )}
        {lamps.length > 0 && !heard.level && !heard.waves && !heard.followers && tab !== 'level' && (
          <Row justifyContent="space-between" gap={8}>
            <Quiet flexShrink={1}>{WORDS.theirLevelLeft}</Quiet>
            <Button onPress={() => draft.say({ level: { type: 'hold', value: 1 } })}>{WORDS.levelToFull}</Button>
          </Row>
        )}
        {lamps.length > 0 && setsAnything(heard) && <OwnFades heard={heard} />}
        <InHand show={show} values={values} />
      </Column>
      {sorting && <OrderSheet onClose={() => setSorting(false)} />}
    </Column>
  );
}

/** Fade times that the chosen lamps have for themselves: all they do is then said by them. */
function OwnFades({ heard }: { readonly heard: LookValue }) {
  const { draft } = useHovlix();
  const { times } = heard;
  const put = (next: LookValue['times']) => draft.say({ ...saidAgain(heard), times: next }, 'times');
  if (!times)
    return (
      <Row>
        <Button onPress={() => put({ in: beats(1), out: beats(1) })}>{WORDS.separateFadeTimes}</Button>
      </Row>
    );
  return (
    <Column gap={8} role="group" aria-label={WORDS.fadesTheseLamps}>
      <Pair>
        <Typed
          label={WORDS.theseLampsBeats}
          value={times.in as number}
          read={decimal(0, 256)}
          onChange={(value) => put({ ...times, in: beats(value) })}
        />
        <Typed
          label={WORDS.theseLampsOut}
          value={times.out as number}
          read={decimal(0, 256)}
          onChange={(value) => put({ ...times, out: beats(value) })}
        />
      </Pair>
      <Row>
        <Button onPress={() => put(undefined)}>{WORDS.asLookFades}</Button>
      </Row>
    </Column>
  );
}

/** What would be stored, in words, and the way to let go of it. */
function InHand({ show, values }: { readonly show: Show; readonly values: readonly LookValue[] }) {
  const { draft } = useHovlix();
  const say = useSession((session) => session.say);
  const lines = draftLines(values, show.roles);
  if (lines.length === 0) return null;
  const letGo = () => {
    const kept = values;
    draft.put([]);
    say('Released: the show has its lamps back.', { undo: () => draft.put(kept) });
  };
  return (
    <Column gap={6} paddingTop={8} borderTopWidth={1} borderColor="$line" role="region" aria-label={WORDS.byHand}>
      <Row justifyContent="space-between">
        <Words fontWeight="600">{WORDS.byHand}</Words>
        <Button onPress={letGo}>{WORDS.release}</Button>
      </Row>
      {lines.map((line, i) => (
        <Quiet key={`${i} ${line}`}>{line}</Quiet>
      ))}
    </Column>
  );
}
