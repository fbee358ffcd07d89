// Many lamps changed at once: addresses, universe, numbers, mode.

import { useMemo } from 'react';
import { useWatch } from 'react-hook-form';
import { z } from 'zod';
import {
  footprint,
  inMode,
  packed,
  packedStart,
  renumbered,
  type Fixture,
  type Patched,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Entry, typed, typedOrOffered, useEntries } from '../../../ui/entry';
import { Choose, wholeNumber } from '../../../ui/form';
import { Button, Column, Grid, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { namesOf } from '../model';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly lamps: readonly Patched[];
  readonly onClose: () => void;
};

/** Where lamps go that take so many channels at most. */
const placeOf = (channels: number) =>
  z.object({
    universe: typed(wholeNumber(1, 63999)).transform(universe),
    start: typedOrOffered(wholeNumber(1, 512)),
    block: typedOrOffered(wholeNumber(channels, 512)),
  });
const NUMBERING = z.object({ first: typed(wholeNumber(1, 99000)) });

export function ManyLamps({ show, rig, lamps, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const fixtures = lamps.map(({ fixture }) => fixture);
  const longest = Math.max(...lamps.map(({ mode }) => footprint(mode)));
  const place = useMemo(() => placeOf(longest), [longest]);
  const moving = useEntries(place, { universe: String(fixtures[0]!.universe), start: '', block: '' });
  const asked = place.safeParse({ ...moving.getValues(), ...useWatch({ control: moving.control }) });
  const to = asked.success && { universe: asked.data.universe, block: asked.data.block ?? 0 };
  const offered = to ? packedStart(rig, show.profiles, lamps, to) : undefined;
  const start = (asked.success ? asked.data.start : null) ?? offered;
  const tried = to && start !== undefined && packed(rig, show.profiles, lamps, { ...to, start: address(start) });
  const fits = tried && tried.past === undefined && tried.clashes.length === 0;
  const numbering = useEntries(NUMBERING, { first: String(Math.min(...fixtures.map((lamp) => lamp.number))) });
  const put = (changed: readonly Fixture[], words: string) => {
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [...changed] });
    say(words, { undo: app.document.takingBack() });
  };
  const [type] = lamps;
  const alike = lamps.every(({ profile }) => profile.id === type!.profile.id);
  const setMode = (chosen: string) => {
    const mode = type!.profile.modes.find(({ id }) => id === chosen);
    if (!mode) return;
    const { fixtures: changed, moved, homeless } = inMode(rig, show.profiles, lamps, mode);
    const words = [
      WORDS.inMode(changed.length, mode.name),
      moved.length > 0
        ? WORDS.movedWhereThey(moved.length, moved.slice(0, 3).join(', '), moved.length > 3 ? ' …' : '')
        : '',
      homeless.length > 0 ? WORDS.noRoomLeft(homeless.join(', ')) : '',
    ];
    put(changed, words.filter(Boolean).join(' '));
  };
  const move = moving.handleSubmit(({ universe }) => {
    if (fits) put(tried.fixtures, WORDS.universeFromOn(namesOf(fixtures), universe, start ?? ''));
  });
  const renumber = numbering.handleSubmit(({ first }) =>
    put(renumbered(rig, fixtures, first), WORDS.numberedFromOn(first)),
  );
  const line = { control: moving.control, numeric: true, onEnter: () => void move() };
  return (
    <Sheet title={WORDS.lamps(lamps.length)} onClose={onClose}>
      <Words>{namesOf(fixtures)}</Words>
      <Grid gridTemplateColumns="repeat(3, minmax(0, 1fr))" gap={12} alignItems="flex-start">
        <Entry {...line} name="universe" label={WORDS.universe} />
        <Entry
          {...line}
          name="start"
          label={WORDS.fromAddress}
          offered={asked.success ? String(offered ?? 1) : undefined}
          hint={asked.success && asked.data.start === null ? 'the first that is free' : undefined}
        />
        <Entry {...line} name="block" label={WORDS.apart} offered={String(longest)} hint="like 8 or 16" />
      </Grid>
      {to && start === undefined && <Words color="$warn">{WORDS.universeHasNo(to.universe)}</Words>}
      {tried && tried.past !== undefined && <Words color="$fault">{WORDS.wouldEndPast(tried.past)}</Words>}
      {tried && tried.clashes.length > 0 && (
        <Words color="$fault">{WORDS.thereAlready(tried.clashes.slice(0, 4).join(', '))}</Words>
      )}
      <Row>
        <Button kind="primary" disabled={asked.success && !fits} onPress={() => void move()}>
          {WORDS.moveThemThere}
        </Button>
      </Row>
      <Row gap={12} alignItems="flex-end">
        <Column flex={1}>
          <Entry
            control={numbering.control}
            name="first"
            label={WORDS.numbersFrom}
            numeric
            onEnter={() => void renumber()}
          />
        </Column>
        <Button onPress={() => void renumber()}>{WORDS.renumber}</Button>
      </Row>
      {alike && type!.profile.modes.length > 1 && (
        <Choose
          label={WORDS.modeAllThem}
          value={lamps.every(({ mode }) => mode.id === type!.mode.id) ? type!.mode.id : 'several modes'}
          choices={type!.profile.modes.map((mode) => ({ value: mode.id, name: mode.name }))}
          onChoose={setMode}
        />
      )}
      <Row>
        <Button
          kind="quiet"
          onPress={() => {
            app.document.make({ type: 'remove-lamps', rig: rig.id, fixtures: fixtures.map(({ id }) => id) });
            say(WORDS.leftTheRig(namesOf(fixtures)), { undo: app.document.takingBack() });
            onClose();
          }}
        >
          {WORDS.removeThem}
        </Button>
      </Row>
    </Sheet>
  );
}
