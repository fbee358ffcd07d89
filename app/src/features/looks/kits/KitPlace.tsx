// One kit: its pads to play, its hits to change, and the MIDI channels that play it.

import { useState } from 'react';
import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import { useMedia } from '@tamagui/core';
import type { Hit, Kit } from '@hovlix/core/light';
import { rigInUse, type Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Card } from '../../../ui/card';
import { Chip } from '../../../ui/Chip';
import { Choose, named, Pair, Typed } from '../../../ui/form';
import { HitPads } from '../../../ui/HitPads';
import { NotHere } from '../../../ui/NotHere';
import { usePalette } from '../../../ui/palette';
import { Button, Column, PlaceHead, Quiet, Row, Words, Grid } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { MidiSwitch } from '../../midi/MidiSwitch';
import { HitSheet } from './HitSheet';
import { hitWords, newHit } from './model';
import { WORDS } from './words';

export function KitPlace({ id }: { readonly id: string }) {
  const show = useShow((one) => one);
  const kit = show?.kits.find((one) => one.id === id);
  if (!show) return null;
  if (!kit) return <NotHere what={WORDS.kitNotShow} />;
  return <KitEditor show={show} kit={kit} />;
}

function KitEditor({ show, kit }: { readonly show: Show; readonly kit: Kit }) {
  const app = useHovlix();
  const palette = usePalette();
  const { wide } = useMedia();
  const say = useSession((session) => session.say);
  const [role, setRole] = useState(kit.channels[0]?.role ?? show.roles[0]?.id);
  const [open, setOpen] = useState<Hit['id'] | null>(null);
  const put = (change: Partial<Kit>) => app.document.make({ type: 'store-kit', kit: { ...kit, ...change } });
  const putHit = (hit: Hit) => put({ hits: kit.hits.map((one) => (one.id === hit.id ? hit : one)) });
  const opened = kit.hits.find((one) => one.id === open);
  const played = show.roles.find((one) => one.id === role) ?? show.roles[0];
  const cast = rigInUse(show).casting.find((one) => one.role === played?.id)?.fixtures.length ?? 0;
  const add = () => {
    const hit = newHit(kit);
    put({ hits: [...kit.hits, hit] });
    setOpen(hit.id);
  };
  const remove = () => {
    app.document.make({ type: 'remove-kit', kit: kit.id });
    router.push('/looks/kits');
    say(WORDS.isGone(kit.name), { undo: app.document.takingBack() });
  };
  return (
    <ScrollArea>
      <PlaceHead title={kit.name}>
        <Button label={WORDS.backHitKits} kind="quiet" onPress={() => router.push('/looks/kits')}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
        <Button kind="primary" disabled={kit.hits.length >= 128} onPress={add}>
          {WORDS.addAHit}
        </Button>
      </PlaceHead>
      <Grid
        gridTemplateColumns={wide ? 'minmax(0, 2fr) minmax(0, 3fr)' : 'minmax(0, 1fr)'}
        gap={14}
        paddingHorizontal={12}
        maxWidth={1180}
        alignItems="flex-start"
      >
        <Column gap={14} minWidth={0}>
          <ScrollArea sideways>
            <Row gap={6} role="group" aria-label={WORDS.roleThatPlays}>
              {firstAssigned(show.roles, kit).map((one) => (
                <Chip key={one.id} small name={one.name} on={one.id === played?.id} onPress={() => setRole(one.id)} />
              ))}
            </Row>
          </ScrollArea>
          <HitPads kit={kit} role={played?.id} />
          {played && cast === 0 && <Quiet>{WORDS.hasNoLamps(played.name)}</Quiet>}
          {kit.hits.length === 0 && <Quiet>{WORDS.thereNoHit}</Quiet>}
        </Column>
        <Column gap={14} minWidth={0}>
          {kit.hits.length > 0 && (
            <Card title={WORDS.whatEachHit}>
              {kit.hits.map((hit) => (
                <Row key={hit.id} justifyContent="space-between" gap={8} minHeight={56}>
                  <Column flexShrink={1}>
                    <Words fontWeight="600">{hit.name}</Words>
                    <Quiet>{hitWords(hit)}</Quiet>
                  </Column>
                  <Button label={WORDS.changeNamed(hit.name)} onPress={() => setOpen(hit.id)}>
                    {WORDS.change}
                  </Button>
                </Row>
              ))}
            </Card>
          )}
          <MidiCard show={show} kit={kit} onPut={put} />
          <Card title={WORDS.theKit}>
            <Typed label={WORDS.name} value={kit.name} read={named} onChange={(name) => put({ name })} />
            <Row gap={8} flexWrap="wrap">
              <Button
                onPress={() => {
                  const copy = {
                    ...kit,
                    id: freshId() as Kit['id'],
                    name: WORDS.copy(kit.name.slice(0, 100)),
                    channels: [],
                  };
                  app.document.make({ type: 'store-kit', kit: copy });
                  router.push(`/looks/kits/${copy.id}`);
                }}
              >
                {WORDS.duplicate}
              </Button>
              <Button kind="quiet" onPress={remove}>
                {WORDS.delete}
              </Button>
            </Row>
          </Card>
        </Column>
      </Grid>
      {opened && played && (
        <HitSheet
          show={show}
          role={played.id}
          hit={opened}
          onPut={putHit}
          onCopy={() => {
            const copy = { ...opened, id: freshId() as Hit['id'], name: WORDS.copy(opened.name.slice(0, 100)) };
            put({ hits: [...kit.hits, copy] });
            setOpen(copy.id);
          }}
          onRemove={() => {
            put({ hits: kit.hits.filter((one) => one.id !== opened.id) });
            setOpen(null);
            say(WORDS.isGone(opened.name), { undo: app.document.takingBack() });
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </ScrollArea>
  );
}

/** The roles that MIDI plays it on come first. */
function firstAssigned(roles: Show['roles'], kit: Kit): Show['roles'] {
  const assigned = roles.filter(({ id }) => kit.channels.some(({ role }) => role === id));
  return [...assigned, ...roles.filter((one) => !assigned.includes(one))];
}

const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), name: WORDS.channel(i + 1) }));

type MidiProps = { readonly show: Show; readonly kit: Kit; readonly onPut: (change: Partial<Kit>) => void };

/** Which channel plays the kit on which role, and whether this screen listens to MIDI at all. */
function MidiCard({ show, kit, onPut }: MidiProps) {
  const roles = show.roles.map(({ id, name }) => ({ value: id as string, name }));
  const change = (i: number, next: object) =>
    onPut({ channels: kit.channels.map((one, k) => (k === i ? { ...one, ...next } : one)) });
  const add = () => {
    const free = CHANNELS.find(({ value }) => !kit.channels.some(({ channel }) => String(channel) === value));
    const first = show.roles[0];
    if (first) onPut({ channels: [...kit.channels, { channel: Number(free?.value ?? 1), role: first.id }] });
  };
  return (
    <Card title={WORDS.playedOverMidi}>
      <MidiSwitch />
      {kit.channels.map(({ channel, role }, i) => (
        <Row key={i} gap={8} alignItems="flex-end">
          <Column flex={1}>
            <Pair>
              <Choose
                label={WORDS.midiChannel}
                value={String(channel)}
                choices={CHANNELS}
                onChoose={(value) => change(i, { channel: Number(value) })}
              />
              <Choose
                label={WORDS.playsOn}
                value={role}
                choices={roles}
                onChoose={(value) => change(i, { role: value })}
              />
            </Pair>
          </Column>
          <Button
            kind="quiet"
            label={WORDS.removeChannel(channel)}
            onPress={() => onPut({ channels: kit.channels.filter((_, k) => k !== i) })}
          >
            {WORDS.remove}
          </Button>
        </Row>
      ))}
      <Row>
        <Button disabled={kit.channels.length >= 64 || roles.length === 0} onPress={add}>
          {WORDS.addAChannel}
        </Button>
      </Row>
    </Card>
  );
}
