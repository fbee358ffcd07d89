// One lamp: what it is called, where it listens, how it behaves, and taking it away.

import { useState } from 'react';
import { router } from 'expo-router';
import {
  areTwins,
  clashes,
  firstRun,
  footprint,
  inMode,
  noteFromText,
  noteName,
  noteOf,
  type Fixture,
  type Patched,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { chromaticityFromHex, hexFromChromaticity } from '@hovlix/core/colour';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Choose, decimal, Labelled, named, remark, Typed, wholeNumber } from '../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { Switch } from '../../ui/Switch';
import { Switches } from './list/Switches';

type Props = { readonly show: Show; readonly rig: Rig; readonly lamp: Patched; readonly onClose: () => void };
type Put = (change: Partial<Fixture>) => void;

export function LampSheet({ show, rig, lamp, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [more, setMore] = useState(false);
  const { fixture, profile } = lamp;
  const put: Put = (change) =>
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [{ ...fixture, ...change }] });
  return (
    <Sheet title={fixture.name} onClose={onClose}>
      <Row gap={12} alignItems="flex-start">
        <Column flex={2}>
          <Typed<string>
            label="Name"
            hint={namesake(rig, fixture)}
            value={fixture.name}
            read={named}
            onChange={(name) => put({ name })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            label="On the plan"
            value={fixture.label ?? String(fixture.number)}
            hint="6 letters"
            read={remark(6)}
            onChange={(label) => put({ label: label === '' || label === String(fixture.number) ? undefined : label })}
          />
        </Column>
      </Row>
      <Patch show={show} rig={rig} lamp={lamp} put={put} />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed<string>
            label="Note that hits it"
            value={noteText(rig, fixture)}
            hint={fixture.note === undefined ? 'by its place in its role' : 'its own'}
            read={(text) => {
              if (text.trim() === '' || text === noteText(rig, fixture)) return { value: text };
              const note = noteFromText(text);
              return note === undefined ? { wrong: 'A note like C3, or 0 to 127.' } : { value: text };
            }}
            onChange={(text) => put({ note: noteFromText(text) })}
          />
        </Column>
        <Column flex={1}>
          <Typed<number>
            label="Watts"
            numeric
            value={fixture.watts ?? profile.watts ?? 0}
            read={wholeNumber(0, 20000)}
            onChange={(watts) => put({ watts })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            label="Circuit"
            value={fixture.circuit ?? ''}
            read={remark(20)}
            onChange={(circuit) => put({ circuit: circuit || undefined })}
          />
        </Column>
      </Row>
      <Button pressed={more} onPress={() => setMore(!more)}>
        {more ? 'Less' : 'Masters, gel, motors, remark'}
      </Button>
      {more && <Manners lamp={lamp} put={put} />}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => router.push(`/rig/type/${profile.id}`)}>Edit type</Button>
        <Button
          kind="quiet"
          onPress={() => {
            app.document.make({ type: 'remove-lamps', rig: rig.id, fixtures: [fixture.id] });
            say(`${fixture.name} is gone from the rig.`, { undo: app.document.takingBack() });
            onClose();
          }}
        >
          Remove lamp
        </Button>
      </Row>
    </Sheet>
  );
}

/** Two lamps may have one name, but whoever calls for one should know. */
function namesake(rig: Rig, fixture: Fixture): string | undefined {
  const other = rig.fixtures.find(({ id, name }) => id !== fixture.id && name === fixture.name);
  return other && `Number ${other.number} is called that too.`;
}

function noteText(rig: Rig, fixture: Fixture): string {
  const note = noteOf(rig, fixture);
  return note === undefined ? '' : noteName(note);
}

/** Mode, universe and address, what is in the way, and the way out. */
function Patch({ show, rig, lamp, put }: Omit<Props, 'onClose'> & { readonly put: Put }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const { fixture, profile, mode } = lamp;
  const others = { ...rig, fixtures: rig.fixtures.filter((one) => one.id !== fixture.id) };
  const twins = others.fixtures.filter((one) => areTwins(one, fixture));
  const strangers = { ...others, fixtures: others.fixtures.filter((one) => !twins.includes(one)) };
  const wanted = { profile, mode, count: 1, universe: fixture.universe };
  const inTheWay = clashes(strangers, show.profiles, wanted, fixture.address);
  const past = fixture.address + footprint(mode) - 1;
  const gap = firstRun(others, show.profiles, wanted);
  const setMode = (chosen: string) => {
    const next = profile.modes.find((one) => one.id === chosen);
    if (!next) return;
    const { fixtures, moved, homeless } = inMode(rig, show.profiles, [lamp], next);
    const [changed] = fixtures;
    if (homeless.length > 0 || !changed)
      return say(
        `Universe ${fixture.universe} has no room for ${footprint(next)} channels in a row. Nothing was changed.`,
        { tone: 'bad' },
      );
    put(changed);
    if (moved.length > 0)
      say(
        `${footprint(next)} channels did not fit at ${fixture.address}: it is at ${changed.address} now. Set that on the lamp.`,
        {
          undo: app.document.takingBack(),
        },
      );
  };
  return (
    <>
      <Choose
        label="Mode, as set in the lamp’s menu"
        value={fixture.mode}
        choices={profile.modes.map((one) => ({ value: one.id, name: one.name }))}
        hint={mode.menu}
        onChoose={setMode}
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
        <Labelled label="Switches 1 to 9">
          <Row height={44}>
            <Switches address={fixture.address} />
          </Row>
        </Labelled>
      </Row>
      {past > 512 && (
        <Words color="$fault">It ends at {past}, past 512: its last channels get nothing. Move it lower.</Words>
      )}
      {inTheWay.length > 0 && (
        <Words color="$fault">
          It shares channels with {inTheWay.join(', ')}: they would answer each other’s light.
        </Words>
      )}
      {twins.length > 0 && (
        <Quiet>Moves as one with {twins.map(({ name }) => name).join(', ')}: the same address.</Quiet>
      )}
      {(past > 512 || inTheWay.length > 0) && gap !== undefined && (
        <Row>
          <Button kind="primary" onPress={() => put({ address: gap })}>{`Move to ${gap}, which is free`}</Button>
        </Row>
      )}
    </>
  );
}

function Manners({ lamp: { fixture, profile, mode }, put }: { readonly lamp: Patched; readonly put: Put }) {
  const mixes = mode.channels.some(({ attribute }) => /^Color/.test(attribute));
  const limits = fixture.limits ?? {
    panFrom: -profile.panRange / 2,
    panTo: profile.panRange / 2,
    tiltFrom: -profile.tiltRange / 2,
    tiltTo: profile.tiltRange / 2,
  };
  return (
    <>
      <Switch label="Follows the sound" on={!fixture.deaf} onChange={(on) => put({ deaf: on ? undefined : true })} />
      <Switch
        label="Follows the grand master"
        on={!fixture.freeOfMaster}
        onChange={(on) => put({ freeOfMaster: on ? undefined : true })}
      />
      <Switch
        label="Goes dark in blackout"
        on={!fixture.freeOfBlackout}
        onChange={(on) => put({ freeOfBlackout: on ? undefined : true })}
      />
      {!mixes && (
        <Labelled label="Gel in front of it" hint="It has one colour: this is the one the pictures show.">
          <Row gap={12}>
            <input
              type="color"
              aria-label="Gel"
              value={fixture.gel ? hexFromChromaticity(fixture.gel) : '#ffffff'}
              onChange={(event) => put({ gel: chromaticityFromHex(event.target.value) })}
              style={{ width: 72, height: 44, padding: 0, border: 0, borderRadius: 12, background: 'transparent' }}
            />
            {fixture.gel && (
              <Button kind="quiet" onPress={() => put({ gel: undefined })}>
                No gel
              </Button>
            )}
          </Row>
        </Labelled>
      )}
      {profile.panRange > 0 && (
        <>
          <Switch
            label="Pan runs the other way"
            on={fixture.panInvert === true}
            onChange={(on) => put({ panInvert: on || undefined })}
          />
          <Switch
            label="Tilt runs the other way"
            on={fixture.tiltInvert === true}
            onChange={(on) => put({ tiltInvert: on || undefined })}
          />
          <Switch
            label="Pan and tilt swapped"
            on={fixture.swapPanTilt === true}
            onChange={(on) => put({ swapPanTilt: on || undefined })}
          />
          <Labelled
            label="Movement limits, ° from centre"
            hint="So that it stays out of the mirror, the neighbours and the DJ’s eyes."
          >
            <Row gap={8} alignItems="flex-start">
              {(['panFrom', 'panTo', 'tiltFrom', 'tiltTo'] as const).map((key) => {
                const most = (key.startsWith('pan') ? profile.panRange : profile.tiltRange) / 2;
                return (
                  <Column key={key} flex={1}>
                    <Typed
                      label={LIMITS[key]}
                      numeric
                      value={limits[key]}
                      read={decimal(-most, most)}
                      onChange={(value) => put({ limits: { ...limits, [key]: value } })}
                    />
                  </Column>
                );
              })}
            </Row>
          </Labelled>
          {fixture.limits && (
            <Row>
              <Button kind="quiet" onPress={() => put({ limits: undefined })}>
                No limits
              </Button>
            </Row>
          )}
        </>
      )}
      <Typed<string>
        label="Remark"
        value={fixture.remark ?? ''}
        read={remark(400)}
        onChange={(text) => put({ remark: text || undefined })}
      />
    </>
  );
}

const LIMITS = { panFrom: 'Pan from', panTo: 'to', tiltFrom: 'Tilt from', tiltTo: 'to' } as const;
