// Many lamps changed at once: addresses, universe, numbers, mode.

import { useState } from 'react';
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
import { Choose, Typed, wholeNumber } from '../../../ui/form';
import { Button, Column, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { namesOf } from '../model';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly lamps: readonly Patched[];
  readonly onClose: () => void;
};

export function ManyLamps({ show, rig, lamps, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const fixtures = lamps.map(({ fixture }) => fixture);
  const longest = Math.max(...lamps.map(({ mode }) => footprint(mode)));
  const [number, setNumber] = useState<number>(fixtures[0]!.universe);
  const [block, setBlock] = useState(0);
  const [asked, setAsked] = useState<number | null>(null);
  const [first, setFirst] = useState(Math.min(...fixtures.map((lamp) => lamp.number)));
  const to = { universe: universe(number), block };
  const offered = packedStart(rig, show.profiles, lamps, to);
  const start = asked ?? offered;
  const tried = start === undefined ? undefined : packed(rig, show.profiles, lamps, { ...to, start: address(start) });
  const fits = tried && tried.past === undefined && tried.clashes.length === 0;
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
  return (
    <Sheet title={WORDS.lamps(lamps.length)} onClose={onClose}>
      <Words>{namesOf(fixtures)}</Words>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed label={WORDS.universe} numeric value={number} read={wholeNumber(1, 63999)} onChange={setNumber} />
        </Column>
        <Column flex={1}>
          <Typed
            key={`start ${offered} ${asked}`}
            label={WORDS.fromAddress}
            numeric
            value={start ?? 1}
            hint={asked === null ? 'the first that is free' : undefined}
            read={wholeNumber(1, 512)}
            onChange={setAsked}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label={WORDS.apart}
            numeric
            value={Math.max(block, longest)}
            hint="like 8 or 16"
            read={wholeNumber(longest, 512)}
            onChange={setBlock}
          />
        </Column>
      </Row>
      {start === undefined && <Words color="$warn">{WORDS.universeHasNo(number)}</Words>}
      {tried?.past !== undefined && <Words color="$fault">{WORDS.wouldEndPast(tried.past)}</Words>}
      {tried && tried.clashes.length > 0 && (
        <Words color="$fault">{WORDS.thereAlready(tried.clashes.slice(0, 4).join(', '))}</Words>
      )}
      <Row>
        <Button
          kind="primary"
          disabled={!fits}
          onPress={() => fits && put(tried.fixtures, WORDS.universeFromOn(namesOf(fixtures), number, start ?? ''))}
        >
          {WORDS.moveThemThere}
        </Button>
      </Row>
      <Row gap={12} alignItems="flex-end">
        <Column flex={1}>
          <Typed label={WORDS.numbersFrom} numeric value={first} read={wholeNumber(1, 99000)} onChange={setFirst} />
        </Column>
        <Button onPress={() => put(renumbered(rig, fixtures, first), WORDS.numberedFromOn(first))}>
          {WORDS.renumber}
        </Button>
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
