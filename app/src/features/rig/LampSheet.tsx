// One lamp: what it is called, where it listens, and taking it away.

import { clashes, firstRun, footprint, type Patched, type Rig } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Choose, Typed, wholeNumber } from '../../ui/form';
import { Button, Column, Row, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';

type Props = { readonly show: Show; readonly rig: Rig; readonly lamp: Patched; readonly onClose: () => void };

export function LampSheet({ show, rig, lamp: { fixture, profile, mode }, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const others = { ...rig, fixtures: rig.fixtures.filter((one) => one.id !== fixture.id) };
  const put = (change: Partial<typeof fixture>) =>
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [{ ...fixture, ...change }] });
  const wanted = { profile, mode, count: 1, universe: fixture.universe };
  const inTheWay = clashes(others, show.profiles, wanted, fixture.address);
  const past = fixture.address + footprint(mode) - 1;
  const gap = firstRun(others, show.profiles, wanted);
  return (
    <Sheet title={fixture.name} onClose={onClose}>
      <Typed<string>
        label="Name"
        value={fixture.name}
        read={(text) =>
          text.trim().length >= 1 && text.trim().length <= 120 ? { value: text.trim() } : { wrong: 'A name, please.' }
        }
        onChange={(name) => put({ name })}
      />
      <Choose
        label="Mode, as set in the lamp’s menu"
        value={fixture.mode}
        choices={profile.modes.map((one) => ({ value: one.id, name: one.name }))}
        onChoose={(chosen) => {
          const next = profile.modes.find((one) => one.id === chosen);
          if (next) put({ mode: next.id });
        }}
      />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            label="Universe"
            numeric
            value={fixture.universe as number}
            read={wholeNumber(1, 63999)}
            onChange={(number) => put({ universe: universe(number) })}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label="Address"
            numeric
            value={fixture.address as number}
            hint={`to ${past}`}
            read={wholeNumber(1, 512)}
            onChange={(number) => put({ address: address(number) })}
          />
        </Column>
      </Row>
      {past > 512 && (
        <Words color="$fault">It ends at {past}, past 512: its last channels get nothing. Move it lower.</Words>
      )}
      {inTheWay.length > 0 && (
        <Words color="$fault">
          It shares channels with {inTheWay.join(', ')}: they would answer each other’s light.
        </Words>
      )}
      {(past > 512 || inTheWay.length > 0) && gap !== undefined && (
        <Row>
          <Button kind="primary" onPress={() => put({ address: gap })}>{`Move to ${gap}, which is free`}</Button>
        </Row>
      )}
      <Row>
        <Button
          kind="quiet"
          onPress={() => {
            app.document.make({ type: 'remove-lamps', rig: rig.id, fixtures: [fixture.id] });
            say(`${fixture.name} is gone from the rig.`, { undo: () => app.document.undo() });
            onClose();
          }}
        >
          Remove lamp
        </Button>
      </Row>
    </Sheet>
  );
}
