// What can be done with the lamps that are chosen on the plan.

import { useMedia } from '@tamagui/core';
import { aligned, firstRun, mirrored, spacedOut, type Fixture, type Patched, type Rig } from '@hovlix/core/rig';
import { address } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { decimal, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { namesOf } from '../model';
import { WORDS } from './words';

type Props = {
  readonly rig: Rig;
  readonly lamps: readonly Patched[];
  readonly from: 'above' | 'audience';
  readonly onChosen: (ids: readonly string[]) => void;
  readonly onDirect: (lamp: Patched) => void;
  readonly onChange: (lamp: Patched) => void;
};

export function HungPanel({ rig, lamps, from, onChosen, onDirect, onChange }: Props) {
  const app = useHovlix();
  const { wide } = useMedia();
  const say = useSession((session) => session.say);
  const profiles = useShow((show) => show.profiles) ?? [];
  const fixtures = lamps.map(({ fixture }) => fixture);
  const put = (changed: readonly Fixture[]) =>
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [...changed] });
  if (lamps.length === 0)
    return <Quiet>{WORDS.dragLampWhere(wide ? ' Zoom with Ctrl and the wheel.' : ' Zoom with two fingers.')}</Quiet>;
  const up = from === 'above' ? 'y' : 'z';
  const one = lamps.length === 1 ? lamps[0]! : null;
  const moves = lamps.find(({ profile }) => profile.panRange > 0);
  const copy = () => {
    const copies: Fixture[] = [];
    for (const lamp of lamps) {
      const room = { ...rig, fixtures: [...rig.fixtures, ...copies] };
      const start = firstRun(room, profiles, { ...lamp, count: 1, universe: lamp.fixture.universe });
      if (start === undefined) return say(WORDS.universeIsFull(lamp.fixture.universe), { tone: 'bad' });
      const number = Math.max(0, ...room.fixtures.map((fixture) => fixture.number)) + 1;
      const { label: _label, note: _note, ...rest } = lamp.fixture;
      copies.push({
        ...rest,
        id: freshId() as Fixture['id'],
        number,
        name: `${lamp.fixture.name.replace(/ \d+$/, '')} ${number}`,
        address: address(start),
        mount: {
          ...lamp.fixture.mount,
          x: lamp.fixture.mount.x + 0.5,
          [up]: lamp.fixture.mount[up] + (up === 'y' ? -0.5 : 0),
        },
      });
    }
    put(copies);
    onChosen(copies.map(({ id }) => id));
    say(WORDS.addressedAfterOthers(namesOf(copies)), { undo: app.document.takingBack() });
  };
  return (
    <Column gap={12}>
      <Row justifyContent="space-between" gap={8}>
        <Words fontWeight="600" flexShrink={1}>
          {namesOf(fixtures)}
        </Words>
        <Button kind="quiet" onPress={() => onChosen([])}>
          {WORDS.chooseNone}
        </Button>
      </Row>
      <Row gap={8} flexWrap="wrap">
        {moves && (
          <Button kind="primary" onPress={() => onDirect(moves)}>
            {WORDS.whereDoesPoint}
          </Button>
        )}
        {one && <Button onPress={() => onChange(one)}>{WORDS.change}</Button>}
        {lamps.length > 1 && <Button onPress={() => put(aligned(fixtures, up))}>{WORDS.inOneLine}</Button>}
        {lamps.length > 1 && <Button onPress={() => put(aligned(fixtures, 'x'))}>{WORDS.oneAboveOther}</Button>}
        {lamps.length > 2 && <Button onPress={() => put(spacedOut(fixtures, 'x'))}>{WORDS.equalGaps}</Button>}
        <Button onPress={() => put(fixtures.map((lamp) => ({ ...lamp, mount: mirrored(lamp.mount) })))}>
          {WORDS.otherSide}
        </Button>
        <Button onPress={copy}>{WORDS.copy}</Button>
        {lamps.length > 1 && (
          <Button
            kind="quiet"
            onPress={() => {
              app.document.make({ type: 'remove-lamps', rig: rig.id, fixtures: fixtures.map(({ id }) => id) });
              say(WORDS.leftTheRig(namesOf(fixtures)), { undo: app.document.takingBack() });
              onChosen([]);
            }}
          >
            {WORDS.remove}
          </Button>
        )}
      </Row>
      {one && (
        <Row gap={8} alignItems="flex-start">
          {(['x', 'y', 'z'] as const).map((axis) => (
            <Column key={`${one.fixture.id} ${axis}`} flex={1}>
              <Typed
                label={AXES[axis]}
                value={one.fixture.mount[axis]}
                numeric
                read={decimal(-500, 500)}
                onChange={(metres) => put([{ ...one.fixture, mount: { ...one.fixture.mount, [axis]: metres } }])}
              />
            </Column>
          ))}
        </Row>
      )}
      {one && one.profile.panRange === 0 && one.profile.kind !== 'hazer' && <Quiet>{WORDS.dragOrangeDot}</Quiet>}
    </Column>
  );
}

const AXES = { x: WORDS.acrossM, y: 'Up-stage, m', z: WORDS.heightM } as const;
