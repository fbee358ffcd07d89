// Who is meant: roles, then some of their lamps, by a tap, a quick choice, or numbers typed.

import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { View } from '@tamagui/core';
import { numbersFromText, pickedPlaces, QUICK_PICKS } from '@hovlix/core/light';
import type { Patched } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { hand } from '../../../host/conduct/hold-lamps';
import { useDraft, useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { Typed } from '../../../ui/form';
import { keyOf } from '../../../ui/key-of';
import { usePalette, useTints } from '../../../ui/palette';
import { Column, Figures, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { walked } from './choose';
import { ChoosePlan } from './ChoosePlan';
import { CopyRow } from './CopyRow';
import { chosenLamps } from './model';
import { WORDS } from './words';

export function WhoRow({ show }: { readonly show: Show }) {
  const { draft } = useHovlix();
  const tints = useTints();
  const chosen = useDraft((state) => state.chosen);
  const preferred = useDraft((state) => state.preferred);
  const [several, setSeveral] = useState(false);
  const [numbers, setNumbers] = useState(false);
  const [plan, setPlan] = useState(false);
  const rig = rigInUse(show);
  const castOf = (role: string) => rig.casting.find((cast) => cast.role === role)?.fixtures ?? [];
  const roles = show.roles.filter((role) => castOf(role.id).length > 0);
  const isChosen = new Set<string>(chosen);
  const press = (role: string) => {
    const on = preferred.includes(role);
    const next = several
      ? on
        ? preferred.filter((one) => one !== role)
        : [...preferred, role]
      : on && preferred.length === 1
        ? []
        : [role];
    draft.choose([...new Set(next.flatMap(castOf))], next);
  };
  const lampsInRoles =
    roles.length > 0
      ? [...new Set((preferred.length > 0 ? preferred : roles.map(({ id }) => id)).flatMap(castOf))]
      : rig.fixtures.map(({ id }) => id);
  const lamps = lampsInRoles.flatMap((id) => rig.fixtures.find((fixture) => fixture.id === id) ?? []);
  const toggle = (id: (typeof chosen)[number]) =>
    draft.choose(
      isChosen.has(id)
        ? chosen.filter((one) => one !== id)
        : lampsInRoles.filter((one) => one === id || isChosen.has(one)),
      preferred,
    );
  const toggleAny = (id: (typeof chosen)[number]) =>
    draft.choose(isChosen.has(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  const walk = (event: KeyboardEvent) => {
    const way = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : undefined;
    const all = keyOf(event) === 'a' && (event.ctrlKey || event.metaKey);
    if (way === undefined && !all) return;
    event.preventDefault();
    event.stopPropagation();
    draft.choose(all ? lampsInRoles : walked(lampsInRoles, chosen, way!, event.shiftKey), preferred);
  };
  return (
    <Column gap={10}>
      <ScrollArea sideways>
        <Row gap={8} paddingHorizontal={12} role="group" aria-label={WORDS.roles}>
          {roles.map((role) => (
            <Chip
              key={role.id}
              name={role.name}
              on={preferred.includes(role.id)}
              picture={<View width={10} height={10} borderRadius={5} backgroundColor={tints[role.tint]} aria-hidden />}
              onPress={() => press(role.id)}
            />
          ))}
          <Chip
            small
            name={WORDS.several}
            label={WORDS.chooseSeveralRoles}
            on={several}
            onPress={() => setSeveral(!several)}
          />
          <Chip small name={WORDS.onThePlan} on={plan} onPress={() => setPlan(!plan)} />
          <Chip small name={WORDS.byNumber} on={numbers} onPress={() => setNumbers(!numbers)} />
        </Row>
      </ScrollArea>
      {plan && (
        <ChoosePlan
          show={show}
          chosen={isChosen}
          onTap={toggleAny}
          onLine={(found, add) => draft.choose(add ? [...new Set([...chosen, ...found])] : found)}
        />
      )}
      {numbers && <ByNumber show={show} />}
      {preferred.length > 0 && (
        <ScrollArea sideways>
          <Row gap={6} paddingHorizontal={12} role="group" aria-label={WORDS.someOfThem}>
            <Chip
              small
              name={WORDS.all}
              on={chosen.length === lampsInRoles.length}
              onPress={() => draft.choose(lampsInRoles, preferred)}
            />
            {QUICK_PICKS.map(({ name, pick }) => {
              const wanted = preferred.flatMap((role) =>
                pickedPlaces(pick, castOf(role).length).map((place) => castOf(role)[place]!),
              );
              const on =
                wanted.length > 0 &&
                wanted.length === chosen.length &&
                wanted.every((id) => isChosen.has(id)) &&
                chosen.length < lampsInRoles.length;
              return <Chip key={name} small name={name} on={on} onPress={() => draft.choose(wanted, preferred)} />;
            })}
          </Row>
        </ScrollArea>
      )}
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={12} role="group" aria-label={WORDS.lamps} onKeyDown={walk}>
          {lamps.map(({ id, number, name }) => (
            <LampButton key={id} number={number} name={name} on={isChosen.has(id)} onPress={() => toggle(id)} />
          ))}
        </Row>
      </ScrollArea>
      {chosen.length > 0 && (
        <Row gap={8} paddingHorizontal={12} flexWrap="wrap">
          <ShowThem key={chosen.join()} lamps={chosenLamps(show, chosen)} />
          <CopyRow show={show} />
        </Row>
      )}
    </Column>
  );
}

/** The chosen lamps at full white over everything, for as long as it is on: which ones are they? */
function ShowThem({ lamps }: { readonly lamps: readonly Patched[] }) {
  const app = useHovlix();
  const [on, setOn] = useState(false);
  const taken = useRef<ReturnType<typeof hand> | null>(null);
  const meant = useRef(lamps);
  const show = (wanted: boolean) => {
    taken.current ??= hand(app, true);
    if (wanted) taken.current.hold(meant.current.map((lamp) => [lamp, { level: 1 }] as const));
    else taken.current.free(meant.current);
    setOn(wanted);
  };
  // Other lamps are chosen, or the place is left: these go back to the show.
  useEffect(() => () => taken.current?.free(meant.current), []);
  return <Chip small name={WORDS.lightThemUp} label={WORDS.lightChosenLamps} on={on} onPress={() => show(!on)} />;
}

type LampProps = { readonly number: number; readonly name: string; readonly on: boolean; readonly onPress: () => void };

function LampButton({ number, name, on, onPress }: LampProps) {
  const palette = usePalette();
  return (
    <View
      render="button"
      aria-pressed={on}
      aria-label={WORDS.lamp(number, name)}
      {...{ title: name }}
      onPress={onPress}
      width={44}
      height={44}
      flexShrink={0}
      borderRadius={22}
      borderWidth={2}
      borderColor={on ? '$doing' : '$line'}
      backgroundColor={on ? '$raised' : 'transparent'}
      alignItems="center"
      justifyContent="center"
      cursor="pointer"
    >
      <Figures color={on ? palette.text : palette.quiet} fontWeight={on ? '600' : '400'}>
        {number}
      </Figures>
    </View>
  );
}

/** “1-6”, or “1-6 at 80” which sets their level as well. */
function ByNumber({ show }: { readonly show: Show }) {
  const { draft } = useHovlix();
  const say = useSession((session) => session.say);
  const rig = rigInUse(show);
  const read = (text: string) => {
    if (text.trim() === '') return { value: '' };
    const [lamps = '', at] = text.split(/\s+at\s+/i);
    const numbers = numbersFromText(lamps);
    if (!numbers) return { wrong: WORDS.lampNumbersSuch };
    if (at !== undefined && levelOf(at) === undefined) return { wrong: WORDS.noLevelNumber(at) };
    if (!rig.fixtures.some(({ number }) => numbers.includes(number))) return { wrong: WORDS.noLampRig };
    return { value: text };
  };
  const use = (text: string) => {
    const [lamps = '', at] = text.split(/\s+at\s+/i);
    const numbers = numbersFromText(lamps) ?? [];
    const found = rig.fixtures.filter(({ number }) => numbers.includes(number));
    if (found.length === 0) return;
    draft.choose(found.map(({ id }) => id));
    const level = at === undefined ? undefined : levelOf(at);
    if (level !== undefined) draft.say({ level: { type: 'hold', value: level } });
    say(
      `${found.length} ${found.length === 1 ? 'lamp' : 'lamps'} chosen${level === undefined ? '' : WORDS.andSetTo(Math.round(level * 100))}.`,
    );
  };
  return (
    <Column paddingHorizontal={12} gap={4}>
      <Typed label={WORDS.lampsByNumber} value="" read={read} onChange={use} />
      <Quiet>{WORDS.example16}</Quiet>
    </Column>
  );
}

function levelOf(text: string): number | undefined {
  if (/^full$/i.test(text.trim())) return 1;
  const number = Number(text.replace('%', '').replace(',', '.'));
  return text.trim() !== '' && number >= 0 && number <= 100 ? number / 100 : undefined;
}
