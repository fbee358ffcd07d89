// The rigs of this show. Another one is taken into use by casting: who plays what there, and what is lost.

import { useMemo, useState } from 'react';
import { View } from '@tamagui/core';
import {
  castingReport,
  lossWords,
  suggestedCasting,
  type Casting,
  type Role,
  type RoleReport,
  type Rig,
} from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { named, Typed } from '../../../ui/form';
import { useTints } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { Ticks } from '../../../ui/Ticks';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly onClose: () => void };

export function Rigs({ show, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [to, setTo] = useState<string | null>(null);
  const here = rigInUse(show);
  const there = show.rigs.find(({ id }) => id === to);
  if (there) return <Recast show={show} from={here} to={there} onBack={() => setTo(null)} onClose={onClose} />;
  const add = (rig: Rig, words: string) => {
    app.document.together([
      { type: 'add-rig', rig },
      { type: 'choose-rig', rig: rig.id },
    ]);
    say(words);
    onClose();
  };
  return (
    <Sheet title={WORDS.rigs} onClose={onClose}>
      <Quiet>{WORDS.oneShowMany}</Quiet>
      <Column gap={8}>
        {show.rigs.map((rig) => (
          <Row
            key={rig.id}
            gap={12}
            justifyContent="space-between"
            minHeight={56}
            borderBottomWidth={1}
            borderColor="$line"
          >
            <Column flexShrink={1}>
              <Words fontWeight="600">{rig.name}</Words>
              <Quiet>
                {rig.fixtures.length} {rig.fixtures.length === 1 ? 'lamp' : 'lamps'}
              </Quiet>
            </Column>
            {rig.id === here.id ? (
              <Words color="$live" fontWeight="600">
                {WORDS.inUse}
              </Words>
            ) : (
              <Button label={WORDS.playIn(rig.name)} onPress={() => setTo(rig.id)}>
                {WORDS.playHere}
              </Button>
            )}
          </Row>
        ))}
      </Column>
      <Typed<string>
        key={here.id}
        label={WORDS.nameRig}
        value={here.name}
        read={named}
        onChange={(name) => app.document.make({ type: 'rename-rig', rig: here.id, name })}
      />
      <Row gap={8} flexWrap="wrap">
        <Button
          onPress={() =>
            add(
              {
                id: freshId() as Rig['id'],
                name: WORDS.rig(show.rigs.length + 1),
                fixtures: [],
                casting: [],
                shapes: [],
              },
              WORDS.emptyRigAdd,
            )
          }
        >
          {WORDS.newRig}
        </Button>
        <Button
          onPress={() =>
            add(
              { ...here, id: freshId() as Rig['id'], name: WORDS.copy(here.name.slice(0, 100)) },
              `A copy of ${here.name}, and you are in it.`,
            )
          }
        >
          {WORDS.copyThisRig}
        </Button>
        {show.rigs.length > 1 && (
          <Button
            kind="quiet"
            onPress={() => {
              app.document.make({ type: 'remove-rig', rig: here.id });
              say(WORDS.isGone(here.name), { undo: app.document.takingBack() });
              onClose();
            }}
          >
            {WORDS.removeThisRig}
          </Button>
        )}
      </Row>
    </Sheet>
  );
}

type RecastProps = {
  readonly show: Show;
  readonly from: Rig;
  readonly to: Rig;
  readonly onBack: () => void;
  readonly onClose: () => void;
};

function Recast({ show, from, to, onBack, onClose }: RecastProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [casting, setCasting] = useState<readonly Casting[]>(() => suggestedCasting(show, from, to));
  const [open, setOpen] = useState<string | null>(null);
  const report = useMemo(() => castingReport(show, from, to, casting), [show, from, to, casting]);
  const asked = report.filter((one) => one.asked.length > 0);
  const put = (role: Role['id'], fixtures: Casting['fixtures']) =>
    setCasting([...casting.filter((cast) => cast.role !== role), { role, fixtures }]);
  return (
    <Sheet title={WORDS.playIn(to.name)} onClose={onClose}>
      <Quiet>{WORDS.fromLampsTap(from.name, from.fixtures.length, to.name, to.fixtures.length)}</Quiet>
      <Column>
        {asked.map((one) => (
          <RoleRow
            key={one.role.id}
            report={one}
            to={to}
            cast={casting.find(({ role }) => role === one.role.id)?.fixtures ?? []}
            open={open === one.role.id}
            onOpen={() => setOpen(open === one.role.id ? null : one.role.id)}
            onCast={(fixtures) => put(one.role.id, fixtures)}
          />
        ))}
      </Column>
      <Row gap={12} flexWrap="wrap">
        <Button
          kind="primary"
          onPress={() => {
            app.document.make({ type: 'recast', rig: to.id, casting: [...casting] });
            say(WORDS.showPlaysNow(to.name), { undo: app.document.takingBack() });
            onClose();
          }}
        >
          {WORDS.playIn(to.name)}
        </Button>
        <Button kind="quiet" onPress={onBack}>
          {WORDS.notNow}
        </Button>
      </Row>
    </Sheet>
  );
}

type RowProps = {
  readonly report: RoleReport;
  readonly to: Rig;
  readonly cast: Casting['fixtures'];
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onCast: (fixtures: Casting['fixtures']) => void;
};

function RoleRow({ report: { role, losses }, to, cast, open, onOpen, onCast }: RowProps) {
  const tints = useTints();
  const names = cast.flatMap((id) => to.fixtures.find((fixture) => fixture.id === id)?.name ?? []);
  return (
    <Column borderBottomWidth={1} borderColor="$line" paddingVertical={6}>
      <View
        render="button"
        aria-expanded={open}
        onPress={onOpen}
        minHeight={48}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
        flexDirection="row"
        alignItems="center"
        gap={12}
        width="100%"
      >
        <View width={6} height={36} borderRadius={3} backgroundColor={tints[role.tint]} />
        <Column flex={1} minWidth={0} alignItems="flex-start">
          <Words fontWeight="600" textAlign="left">
            {role.name}
          </Words>
          <Quiet textAlign="left">{names.length === 0 ? 'nobody' : names.join(', ')}</Quiet>
        </Column>
      </View>
      <Column paddingLeft={18} gap={2}>
        {losses.length === 0 ? (
          <Quiet color="$live">{WORDS.nothingIsLost}</Quiet>
        ) : (
          losses.map((loss, i) => (
            <Quiet key={i} color="$warn">
              {lossWords(loss)}
            </Quiet>
          ))
        )}
      </Column>
      {open && (
        <Column paddingLeft={18}>
          <Ticks
            label={WORDS.whoPlays(role.name)}
            items={to.fixtures.map(({ id, name }) => ({ id, name }))}
            ticked={new Set<string>(cast)}
            onTick={(id, on) =>
              onCast(on ? [...cast, id as Casting['fixtures'][number]] : cast.filter((fixture) => fixture !== id))
            }
          />
        </Column>
      )}
    </Column>
  );
}
