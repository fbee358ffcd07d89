// The roles the show is written for, and who plays them in this room, in which order.

import { Fragment, useState } from 'react';
import { View } from '@tamagui/core';
import { counted } from '@hovlix/core/counted';
import { finder } from '@hovlix/core/letters';
import { ORDERS, ordered, type Casting, type Role, type Rig } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Field } from '../../../ui/Field';
import { Choose, named, Typed } from '../../../ui/form';
import { useTints } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { SortableList } from '../../../ui/SortableList';
import { Ticks } from '../../../ui/Ticks';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly rig: Rig };

export function RolesTab({ show, rig }: Props) {
  const app = useHovlix();
  const tints = useTints();
  const [open, setOpen] = useState<string | null>(null);
  const [text, setText] = useState('');
  const role = show.roles.find(({ id }) => id === open);
  const castOf = (id: string) => rig.casting.find((cast) => cast.role === id)?.fixtures ?? [];
  const nameOf = (id: string) => rig.fixtures.find((fixture) => fixture.id === id)?.name;
  const uncast = rig.fixtures.filter(({ id }) => !rig.casting.some(({ fixtures }) => fixtures.includes(id)));
  const fits = finder(text);
  const found = show.roles.filter(({ id, name }) => fits(`${name} ${castOf(id).map(nameOf).join(' ')}`));
  const row = ({ id, name, tint }: Role) => (
    <RoleRow
      name={name}
      tint={tints[tint]!}
      lamps={castOf(id).map((lamp) => nameOf(lamp) ?? '')}
      onPress={() => setOpen(id)}
    />
  );
  const add = () => {
    const fresh: Role = {
      id: freshId() as Role['id'],
      name: WORDS.role(show.roles.length + 1),
      tint: show.roles.length % 8,
    };
    app.document.make({ type: 'add-role', role: fresh });
    setOpen(fresh.id);
  };
  return (
    <Column paddingHorizontal={16} gap={12} maxWidth={720}>
      <Quiet>{WORDS.looksMadeRoles}</Quiet>
      {show.roles.length > SEARCHED && (
        <Field label={WORDS.searchTheRoles} value={text} onChange={setText} placeholder={WORDS.roleOrLamp} />
      )}
      <Column>
        {text.trim() !== '' ? (
          found.map((one) => <Fragment key={one.id}>{row(one)}</Fragment>)
        ) : (
          <SortableList
            items={show.roles}
            nameOf={({ name }) => name}
            onOrder={(order) => {
              const moved = order.findIndex((one, i) => one !== show.roles[i]);
              // The first place that differs holds the role that came up, or the one after a role that went down.
              const came = show.roles[moved] === order[moved + 1] ? order[moved]! : show.roles[moved]!;
              const behind = order[order.indexOf(came) + 1];
              app.document.make({ type: 'move-role', role: came.id, before: behind?.id ?? null });
            }}
          >
            {row}
          </SortableList>
        )}
        {found.length === 0 && show.roles.length > 0 && <Words>{WORDS.noRoleMatches}</Words>}
      </Column>
      {uncast.length > 0 && <Words color="$warn">{WORDS.noRoleSo(uncast.map(({ name }) => name).join(', '))}</Words>}
      <Row>
        <Button onPress={add}>{WORDS.newRole}</Button>
      </Row>
      {role && (
        <RoleSheet
          key={role.id}
          show={show}
          rig={rig}
          role={role}
          cast={castOf(role.id)}
          onClose={() => setOpen(null)}
        />
      )}
    </Column>
  );
}

/** From so many roles on, the list can be searched. */
const SEARCHED = 8;

type RowProps = {
  readonly name: string;
  readonly tint: string;
  readonly lamps: readonly string[];
  readonly onPress: () => void;
};

function RoleRow({ name, tint, lamps, onPress }: RowProps) {
  return (
    <View
      render="button"
      aria-label={`${name}, ${counted(lamps.length, 'lamp')}`}
      onPress={onPress}
      minHeight={60}
      width="100%"
      borderWidth={0}
      backgroundColor="transparent"
      cursor="pointer"
      flexDirection="row"
      alignItems="center"
      gap={12}
    >
      <View width={6} height={36} borderRadius={3} backgroundColor={tint} />
      <Column flex={1} minWidth={0} alignItems="flex-start">
        <Words fontWeight="600" textAlign="left">
          {name}
        </Words>
        <Quiet numberOfLines={1} textAlign="left" color={lamps.length === 0 ? '$warn' : '$quiet'}>
          {lamps.length === 0 ? WORDS.noLampsAssigned : lamps.join(', ')}
        </Quiet>
      </Column>
    </View>
  );
}

type SheetProps = Props & {
  readonly role: Role;
  readonly cast: Casting['fixtures'];
  readonly onClose: () => void;
};

function RoleSheet({ show, rig, role, cast, onClose }: SheetProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const put = (fixtures: readonly Casting['fixtures'][number][]) =>
    app.document.make({ type: 'cast-role', rig: rig.id, casting: { role: role.id, fixtures: [...fixtures] } });
  const lamps = cast.flatMap((id) => rig.fixtures.find((fixture) => fixture.id === id) ?? []);
  const others = show.roles.filter(({ id }) => id !== role.id);
  const uses = show.looks.filter((look) => look.values.some((value) => value.role === role.id)).length;
  return (
    <Sheet title={role.name} onClose={onClose}>
      <Typed<string>
        label={WORDS.name}
        value={role.name}
        read={named}
        onChange={(name) => app.document.make({ type: 'rename-role', role: role.id, name })}
      />
      <Quiet>{uses === 0 ? WORDS.noLookUses : WORDS.it(uses, uses === 1 ? 'look uses' : 'looks use')}</Quiet>
      {lamps.length > 1 && (
        <Column gap={8}>
          <Choose<string>
            label={WORDS.order}
            value=""
            choices={[
              { value: '', name: 'as dragged below' },
              ...ORDERS.map((order) => ({ value: order, name: order })),
            ]}
            onChoose={(order) => {
              const wanted = ORDERS.find((one) => one === order);
              if (wanted) put(ordered(rig, cast, wanted));
            }}
          />
          <Column>
            <SortableList items={lamps} nameOf={({ name }) => name} onOrder={(order) => put(order.map(({ id }) => id))}>
              {(lamp) => <Words>{lamp.name}</Words>}
            </SortableList>
          </Column>
        </Column>
      )}
      <Column gap={6}>
        <Quiet fontWeight="600">{WORDS.whoPlaysIt}</Quiet>
        <Ticks
          label={WORDS.whoPlaysIt}
          items={rig.fixtures.map(({ id, name, number }) => ({ id, name, more: WORDS.number(number) }))}
          ticked={new Set<string>(cast)}
          onTick={(id, on) =>
            put(on ? [...cast, id as Casting['fixtures'][number]] : cast.filter((fixture) => fixture !== id))
          }
        />
      </Column>
      {others.length > 0 && (
        <Choose<string>
          label={WORDS.mergeInto}
          value=""
          choices={[{ value: '', name: 'keep it apart' }, ...others.map(({ id, name }) => ({ value: id, name }))]}
          hint={WORDS.everyRigEvery}
          onChoose={(into) => {
            const kept = others.find(({ id }) => id === into);
            if (!kept) return;
            app.document.make({ type: 'merge-roles', role: role.id, into: kept.id });
            say(WORDS.belongsToNow(role.name, kept.name), { undo: app.document.takingBack() });
            onClose();
          }}
        />
      )}
      <Row>
        <Button
          kind="quiet"
          onPress={() => {
            app.document.make({ type: 'remove-role', role: role.id });
            say(WORDS.goneWhatSaid(role.name, counted(uses, 'look')), {
              undo: app.document.takingBack(),
            });
            onClose();
          }}
        >
          {WORDS.removeRole}
        </Button>
      </Row>
    </Sheet>
  );
}
