// The lamps in this room: the plan seen from above, the address ruler, and each lamp with its switches.

import { useState } from 'react';
import { Text, useMedia, View } from '@tamagui/core';
import { dipSwitches, footprint, nextFree, patchedFixtures, type Patched, type Rig } from '@hovlix/core/rig';
import { rigInUse } from '@hovlix/core/show';
import { useHovlix, useShow, useStage } from '../../host/hovlix';
import { usePalette, useTints } from '../../ui/palette';
import { Button, Column, Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { AddLamps } from './AddLamps';
import { LampSheet } from './LampSheet';
import { Plan } from './Plan';
import { Why } from './Why';

export function RigPlace() {
  const app = useHovlix();
  const { wide } = useMedia();
  const show = useShow((one) => one);
  const [chosen, setChosen] = useState<string | null>(null);
  const [sheet, setSheet] = useState<'add' | 'lamp' | null>(null);
  const notes = useStage().notes;
  if (!show) return null;
  const rig = rigInUse(show);
  const patched = patchedFixtures(rig, show.profiles);
  const tintOf = tintsByFixture(rig, show.parts);
  const lamp = patched.find(({ fixture }) => fixture.id === chosen);
  const plan = <Plan patched={patched} aims={show.aims} tintOf={tintOf} chosen={chosen} onChoose={setChosen} />;
  const details = (
    <>
      {lamp && (
        <Why
          fixture={lamp.fixture}
          profile={lamp.profile}
          onChange={() => setSheet('lamp')}
          onClose={() => setChosen(null)}
        />
      )}
      {notes.map((note) => (
        <Words key={note} color="$warn" paddingHorizontal={16} paddingTop={8}>
          {note}
        </Words>
      ))}
      <Ruler patched={patched} tintOf={tintOf} chosen={chosen} onChoose={setChosen} />
      <Column paddingHorizontal={12}>
        {patched.map((one) => (
          <LampRow key={one.fixture.id} {...one} on={one.fixture.id === chosen} onChoose={setChosen} />
        ))}
      </Column>
    </>
  );
  const choice = (
    <Segments
      label="Rig"
      value={rig.id}
      choices={show.rigs.map((one) => ({ value: one.id, name: one.name }))}
      onChoose={(chosenRig) => app.document.make({ type: 'choose-rig', rig: chosenRig })}
    />
  );
  return (
    <>
      <ScrollArea>
        <PlaceHead title={rig.name}>
          <Button kind="primary" onPress={() => setSheet('add')}>
            Add lamps
          </Button>
          {wide && choice}
        </PlaceHead>
        {!wide && (
          <Row paddingHorizontal={16} paddingBottom={12}>
            {choice}
          </Row>
        )}
        {wide ? (
          <Row alignItems="flex-start">
            <View flex={1}>{plan}</View>
            <View flex={1}>{details}</View>
          </Row>
        ) : (
          <>
            {plan}
            {details}
          </>
        )}
      </ScrollArea>
      {sheet === 'add' && <AddLamps show={show} rig={rig} onClose={() => setSheet(null)} />}
      {sheet === 'lamp' && lamp && (
        <LampSheet key={lamp.fixture.id} show={show} rig={rig} lamp={lamp} onClose={() => setSheet(null)} />
      )}
    </>
  );
}

/** Index of the tint of the first part a fixture plays; undefined where it plays none. */
function tintsByFixture(rig: Rig, parts: readonly { readonly id: string; readonly tint: number }[]) {
  return (fixture: string): number | undefined => {
    const cast = rig.casting.find((one) => one.fixtures.some((id) => id === fixture));
    return parts.find((part) => part.id === cast?.part)?.tint;
  };
}

type Choice = {
  readonly chosen: string | null;
  readonly onChoose: (fixture: string) => void;
  readonly tintOf: (fixture: string) => number | undefined;
};

/** One strip a universe: who sits where, and what is free. */
function Ruler({ patched, tintOf, chosen, onChoose }: Choice & { readonly patched: readonly Patched[] }) {
  const palette = usePalette();
  const tints = useTints();
  const universes = [...new Set(patched.map(({ fixture }) => fixture.universe as number))];
  return (
    <Column padding={16} gap={12}>
      {universes.map((universe) => {
        const lamps = patched.filter(({ fixture }) => fixture.universe === universe);
        const end = Math.min(
          512,
          Math.ceil(Math.max(...lamps.map(({ fixture, mode }) => fixture.address + footprint(mode))) / 64) * 64,
        );
        return (
          <Column key={universe} gap={6}>
            <Row justifyContent="space-between">
              <Words color="$quiet">
                Universe {universe}, addresses 1 to {end}
              </Words>
              <Words color="$quiet">
                next free <Figures color="$text">{nextFree(patched, universe, 1) ?? 'none'}</Figures>
              </Words>
            </Row>
            <div
              style={{
                position: 'relative',
                height: 44,
                background: palette.sunken,
                borderRadius: 8,
                overflow: 'hidden',
              }}
            >
              {lamps.map(({ fixture, mode }) => {
                const tint = tintOf(fixture.id);
                return (
                  <button
                    key={fixture.id}
                    type="button"
                    aria-label={`${fixture.name}, address ${fixture.address}`}
                    onClick={() => onChoose(fixture.id)}
                    style={{
                      position: 'absolute',
                      left: `${((fixture.address - 1) / end) * 100}%`,
                      width: `calc(${(footprint(mode) / end) * 100}% - 1px)`,
                      top: 0,
                      bottom: 0,
                      border: 0,
                      padding: 0,
                      overflow: 'hidden',
                      borderRadius: 4,
                      cursor: 'pointer',
                      background:
                        fixture.id === chosen ? palette.doing : tint === undefined ? palette.faint : tints[tint],
                      color: palette.ground,
                      font: '600 12px "Spline Sans Mono"',
                    }}
                  >
                    {footprint(mode) / end > 0.04 ? fixture.number : ''}
                  </button>
                );
              })}
            </div>
          </Column>
        );
      })}
    </Column>
  );
}

function LampRow({
  fixture,
  profile,
  mode,
  on,
  onChoose,
}: Patched & { readonly on: boolean; readonly onChoose: (fixture: string) => void }) {
  return (
    <View
      render="button"
      aria-label={`${fixture.name}, address ${fixture.address}`}
      aria-pressed={on}
      onPress={() => onChoose(fixture.id)}
      flexDirection="row"
      alignItems="center"
      gap={12}
      minHeight={60}
      paddingHorizontal={8}
      borderWidth={0}
      borderBottomWidth={1}
      borderColor="$line"
      backgroundColor={on ? '$well' : 'transparent'}
      cursor="pointer"
    >
      <Figures width={26}>{fixture.number}</Figures>
      <Column flex={1} minWidth={0} alignItems="flex-start">
        <Text fontFamily="$body" fontWeight="600" fontSize={15} lineHeight={20} color="$text">
          {fixture.name}
        </Text>
        <Quiet numberOfLines={1}>
          {profile.maker} {profile.model} · {footprint(mode)} ch
        </Quiet>
      </Column>
      <Figures fontSize={16} color="$text">
        {fixture.address}
      </Figures>
      <Switches address={fixture.address} />
    </View>
  );
}

/** The address switches as they look on the lamp: 1 at the left, up is on. */
function Switches({ address }: { readonly address: Patched['fixture']['address'] }) {
  const palette = usePalette();
  return (
    <Row gap={2} aria-hidden>
      {dipSwitches(address).map((on, i) => (
        <span
          key={i}
          style={{
            width: 8,
            height: 18,
            borderRadius: 2,
            background: palette.well,
            position: 'relative',
            display: 'block',
          }}
        >
          <span
            style={{
              position: 'absolute',
              left: 1,
              right: 1,
              height: 8,
              borderRadius: 1,
              top: on ? 1 : 9,
              background: on ? palette.text : palette.faint,
            }}
          />
        </span>
      ))}
    </Row>
  );
}
