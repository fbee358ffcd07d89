// What one lane is set to.

import type { TamaguiWebElement } from '@tamagui/core';
import { useEffect, useRef } from 'react';
import { FAMILIES } from '@hovlix/core/light';
import type { Command, Show } from '@hovlix/core/show';
import {
  BLENDS,
  CURVE_BLENDS,
  type CurveLane,
  type HitLane,
  type Lane,
  type LookLane,
  type Song,
} from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { Choose, named, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { chosenTarget, targetsOf, targetWords } from './model';
import { BLEND_HINTS, BLEND_NAMES, CURVE_BLEND_HINTS, CURVE_BLEND_NAMES, FAMILY_NAMES, WORDS } from './words';

type Props<Of extends Lane = Lane> = {
  readonly song: Song;
  readonly lane: Of;
  readonly show: Show;
  readonly onGone: () => void;
};

type Setting = Omit<Extract<Command, { readonly type: 'set-lane' }>, 'type' | 'song' | 'lane'>;

export function LaneForm({ song, lane, show, onGone }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const set = (more: Setting) => document.make({ type: 'set-lane', song: song.id, lane: lane.id, ...more });
  const form = useRef<TamaguiWebElement>(null);
  useEffect(() => void form.current?.scrollIntoView({ block: 'nearest' }), []);
  const remove = () => {
    document.make({ type: 'remove-lane', song: song.id, lane: lane.id });
    say(WORDS.laneIsDeleted(lane.name), { undo: document.takingBack() });
    onGone();
  };
  return (
    <Column ref={form} gap={14} paddingTop={4} paddingBottom={16} role="group" aria-label={WORDS.lane(lane.name)}>
      <Typed label={WORDS.name} value={lane.name} read={named} onChange={(name) => set({ name })} />
      {lane.type !== 'curve' && (
        <Slider
          label={WORDS.fader}
          value={(lane.level ?? 1) * 100}
          low={0}
          high={100}
          step={5}
          unit="%"
          onChange={(level) => set({ level: level / 100 })}
        />
      )}
      {lane.type === 'looks' && <LookSettings lane={lane} show={show} onSet={set} />}
      {lane.type === 'hits' && <HitSettings lane={lane} show={show} onSet={set} />}
      {lane.type === 'curve' && <CurveSettings song={song} lane={lane} show={show} onSet={set} />}
      <Row>
        <Button kind="quiet" disabled={song.lanes.length < 2} onPress={remove}>
          {WORDS.deleteLane}
        </Button>
      </Row>
    </Column>
  );
}

type Set = { readonly onSet: (more: Setting) => void };

/** One more, or one less; nothing where none is left. */
function toggled<T>(all: readonly T[] | undefined, one: T): T[] | undefined {
  const next = all?.includes(one) ? all.filter((other) => other !== one) : [...(all ?? []), one];
  return next.length > 0 ? next : undefined;
}

function LookSettings({ lane, show, onSet }: Pick<Props<LookLane>, 'lane' | 'show'> & Set) {
  const { only } = lane;
  const narrow = (more: NonNullable<LookLane['only']>) => {
    const { roles, families } = { ...only, ...more };
    const left = { ...(roles ? { roles } : {}), ...(families ? { families } : {}) };
    onSet({ only: roles || families ? left : null });
  };
  return (
    <>
      <Column gap={6}>
        <Quiet fontWeight="600">{WORDS.lanesBelow}</Quiet>
        <Segments
          label={WORDS.lanesBelow}
          value={lane.blend}
          choices={BLENDS.map((value) => ({ value, name: BLEND_NAMES[value] }))}
          onChoose={(blend) => onSet({ blend })}
        />
        <Quiet>{BLEND_HINTS[lane.blend]}</Quiet>
      </Column>
      <Column gap={6} role="group" aria-label={WORDS.onlyTheseRoles}>
        <Quiet fontWeight="600">{WORDS.onlyTheseRolesNamed(only?.roles ? '' : ' (all)')}</Quiet>
        <Row gap={6} flexWrap="wrap">
          {show.roles.map(({ id, name }) => (
            <Chip
              key={id}
              small
              name={name}
              on={only?.roles?.includes(id) ?? false}
              onPress={() => narrow({ roles: toggled(only?.roles, id) })}
            />
          ))}
        </Row>
      </Column>
      <Column gap={6} role="group" aria-label={WORDS.onlyTheseAttributes}>
        <Quiet fontWeight="600">{WORDS.onlyTheseAttributesNamed(only?.families ? '' : ' (all)')}</Quiet>
        <Row gap={6} flexWrap="wrap">
          {FAMILIES.map((family) => (
            <Chip
              key={family}
              small
              name={FAMILY_NAMES[family]}
              on={only?.families?.includes(family) ?? false}
              onPress={() => narrow({ families: toggled(only?.families, family) })}
            />
          ))}
        </Row>
      </Column>
    </>
  );
}

function HitSettings({ lane, show, onSet }: Pick<Props<HitLane>, 'lane' | 'show'> & Set) {
  return (
    <>
      <Choose
        label={WORDS.hitKit}
        value={lane.kit as string}
        choices={show.kits.map(({ id, name }) => ({ value: id as string, name }))}
        hint={WORDS.kitsMadeLooks}
        onChoose={(kit) => onSet({ kit: kit as HitLane['kit'] })}
      />
      <Choose
        label={WORDS.plays}
        value={lane.role as string}
        choices={show.roles.map(({ id, name }) => ({ value: id as string, name }))}
        onChoose={(role) => onSet({ role: role as HitLane['role'] })}
      />
    </>
  );
}

function CurveSettings({ song, lane, show, onSet }: Pick<Props<CurveLane>, 'song' | 'lane' | 'show'> & Set) {
  const targets = targetsOf(show, song);
  const value = chosenTarget(lane.target);
  const known = targets.some((one) => one.value === value);
  const choices = known ? targets : [{ value, name: WORDS.notRig(targetWords(show, song, lane.target)) }, ...targets];
  return (
    <>
      <Choose
        label={WORDS.moves}
        value={value}
        choices={choices}
        onChoose={(chosen) => {
          const target = targets.find((one) => one.value === chosen)?.target;
          if (target) onSet({ target });
        }}
        hint={
          lane.target.on === 'speed'
            ? 'Half-way up is the usual speed, the top four times as fast, and at the bottom they stand still.'
            : undefined
        }
      />
      {(lane.target.on === 'role' || lane.target.on === 'all') && (
        <Column gap={6}>
          <Quiet fontWeight="600">{WORDS.lanesBelow}</Quiet>
          <Segments
            label={WORDS.lanesBelow}
            value={lane.blend}
            choices={CURVE_BLENDS.map((blend) => ({ value: blend, name: CURVE_BLEND_NAMES[blend] }))}
            onChoose={(blend) => onSet({ blend })}
          />
          <Quiet>{CURVE_BLEND_HINTS[lane.blend]}</Quiet>
        </Column>
      )}
    </>
  );
}
