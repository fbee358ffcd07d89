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
import { ColourInput } from '../../ui/inputs';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { Switch } from '../../ui/Switch';
import { Switches } from './list/Switches';
import { WORDS } from './words';

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
            label={WORDS.name}
            hint={namesake(rig, fixture)}
            value={fixture.name}
            read={named}
            onChange={(name) => put({ name })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            label={WORDS.onThePlan}
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
            label={WORDS.noteHits}
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
            label={WORDS.watts}
            numeric
            value={fixture.watts ?? profile.watts ?? 0}
            read={wholeNumber(0, 20000)}
            onChange={(watts) => put({ watts })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            label={WORDS.circuit}
            value={fixture.circuit ?? ''}
            read={remark(20)}
            onChange={(circuit) => put({ circuit: circuit || undefined })}
          />
        </Column>
      </Row>
      <Button pressed={more} onPress={() => setMore(!more)}>
        {more ? WORDS.less : WORDS.mastersGelMotors}
      </Button>
      {more && <Manners lamp={lamp} put={put} />}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => router.push(`/rig/type/${profile.id}`)}>{WORDS.editType}</Button>
        <Button
          kind="quiet"
          onPress={() => {
            app.document.make({ type: 'remove-lamps', rig: rig.id, fixtures: [fixture.id] });
            say(WORDS.goneFromRig(fixture.name), { undo: app.document.takingBack() });
            onClose();
          }}
        >
          {WORDS.removeLamp}
        </Button>
      </Row>
    </Sheet>
  );
}

/** Two lamps may have one name, but whoever calls for one should know. */
function namesake(rig: Rig, fixture: Fixture): string | undefined {
  const other = rig.fixtures.find(({ id, name }) => id !== fixture.id && name === fixture.name);
  return other && WORDS.numberCalledToo(other.number);
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
      return say(WORDS.universeHasNoRoom(fixture.universe, footprint(next)), { tone: 'bad' });
    put(changed);
    if (moved.length > 0)
      say(WORDS.channelsDidNot(footprint(next), fixture.address, changed.address), {
        undo: app.document.takingBack(),
      });
  };
  return (
    <>
      <Choose
        label={WORDS.modeAsSet}
        value={fixture.mode}
        choices={profile.modes.map((one) => ({ value: one.id, name: one.name }))}
        hint={mode.menu}
        onChoose={setMode}
      />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            label={WORDS.universe}
            patient
            numeric
            value={fixture.universe as number}
            read={wholeNumber(1, 63999)}
            onChange={(number) => put({ universe: universe(number) })}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label={WORDS.address}
            patient
            numeric
            value={fixture.address as number}
            hint={WORDS.toPast(past)}
            read={wholeNumber(1, 512)}
            onChange={(number) => put({ address: address(number) })}
          />
        </Column>
        <Labelled label={WORDS.switches19}>
          <Row height={44}>
            <Switches address={fixture.address} />
          </Row>
        </Labelled>
      </Row>
      {past > 512 && <Words color="$fault">{WORDS.endsPast512(past)}</Words>}
      {inTheWay.length > 0 && <Words color="$fault">{WORDS.sharesChannelsThey(inTheWay.join(', '))}</Words>}
      {twins.length > 0 && <Quiet>{WORDS.movesAsOne(twins.map(({ name }) => name).join(', '))}</Quiet>}
      {(past > 512 || inTheWay.length > 0) && gap !== undefined && (
        <Row>
          <Button kind="primary" onPress={() => put({ address: gap })}>
            {WORDS.moveWhichFree(gap)}
          </Button>
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
      <Switch
        label={WORDS.followsTheSound}
        on={!fixture.deaf}
        onChange={(on) => put({ deaf: on ? undefined : true })}
      />
      <Switch
        label={WORDS.followsGrandMaster}
        on={!fixture.freeOfMaster}
        onChange={(on) => put({ freeOfMaster: on ? undefined : true })}
      />
      <Switch
        label={WORDS.goesDarkBlackout}
        on={!fixture.freeOfBlackout}
        onChange={(on) => put({ freeOfBlackout: on ? undefined : true })}
      />
      {!mixes && (
        <Labelled label={WORDS.gelFront} hint={WORDS.hasOneColour}>
          <Row gap={12}>
            <ColourInput
              label={WORDS.gel}
              value={fixture.gel ? hexFromChromaticity(fixture.gel) : '#ffffff'}
              onChange={(hex) => put({ gel: chromaticityFromHex(hex) })}
            />
            {fixture.gel && (
              <Button kind="quiet" onPress={() => put({ gel: undefined })}>
                {WORDS.noGel}
              </Button>
            )}
          </Row>
        </Labelled>
      )}
      {profile.panRange > 0 && (
        <>
          <Switch
            label={WORDS.panRunsOther}
            on={fixture.panInvert === true}
            onChange={(on) => put({ panInvert: on || undefined })}
          />
          <Switch
            label={WORDS.tiltRunsOther}
            on={fixture.tiltInvert === true}
            onChange={(on) => put({ tiltInvert: on || undefined })}
          />
          <Switch
            label={WORDS.panTiltSwapped}
            on={fixture.swapPanTilt === true}
            onChange={(on) => put({ swapPanTilt: on || undefined })}
          />
          <Labelled label={WORDS.movementLimitsFrom} hint={WORDS.soStaysOut}>
            <Row gap={8} alignItems="flex-start">
              {(['panFrom', 'panTo', 'tiltFrom', 'tiltTo'] as const).map((key) => {
                const most = (key.startsWith('pan') ? profile.panRange : profile.tiltRange) / 2;
                return (
                  <Column key={key} flex={1}>
                    <Typed
                      label={LIMITS[key]}
                      patient
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
                {WORDS.noLimits}
              </Button>
            </Row>
          )}
        </>
      )}
      <Typed<string>
        label={WORDS.remark}
        value={fixture.remark ?? ''}
        read={remark(400)}
        onChange={(text) => put({ remark: text || undefined })}
      />
    </>
  );
}

const LIMITS = { panFrom: WORDS.panFrom, panTo: 'to', tiltFrom: WORDS.tiltFrom, tiltTo: 'to' } as const;
