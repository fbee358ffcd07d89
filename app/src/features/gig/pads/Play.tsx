// The playing page: the pads of a bank, hits of a kit, or role masters; next and previous; and what is running.

import { useState } from 'react';
import { View } from '@tamagui/core';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { banksOf, padAfter, type Bank, type Kit } from '@hovlix/core/light';
import type { Role } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { goOn } from '../../../host/conduct/gestures';
import { useHovlix, useLive, usePlays } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { HitPads } from '../../../ui/HitPads';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Grid } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { RoleFaders, rolesCast } from '../../pulse/RoleFaders';
import { BankSheet } from './BankSheet';
import { Pads } from './Pads';
import { RunningChip } from './Running';
import { WORDS } from './words';

export function Play({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const place = useLive((live) => live.place);
  const [changing, setChanging] = useState(false);
  const [view, setView] = useState('pads');
  const banks = banksOf(show);
  const bank = banks.find(({ id }) => id === place.bank) ?? banks[0]!;
  const others = othersOf(show);
  const other = others.find(({ key }) => key === view);
  return (
    <Column gap={8}>
      <Row>
        <View flex={1} minWidth={0}>
          <ScrollArea sideways>
            <Row gap={6} paddingHorizontal={14} role="group" aria-label={WORDS.banks}>
              <RunningChip />
              {banks.map((one) => (
                <Chip
                  key={one.id}
                  small
                  name={one.name}
                  on={!other && one.id === bank.id}
                  onPress={() => {
                    setView('pads');
                    app.conducting.act({ type: 'bank', bank: one.id });
                  }}
                />
              ))}
              {others.map(({ key, name }) => (
                <Chip key={key} small name={name} on={key === other?.key} onPress={() => setView(key)} />
              ))}
              <Chip
                small
                name={WORDS.change3}
                label={WORDS.changeTheBanks}
                on={false}
                onPress={() => setChanging(true)}
              />
            </Row>
          </ScrollArea>
        </View>
        <Going banks={banks} bank={bank} at={place.look} />
      </Row>
      {other ? <Other show={show} other={other} /> : <Pads banks={banks} bank={bank} />}
      {changing && <BankSheet show={show} bank={bank} onClose={() => setChanging(false)} />}
    </Column>
  );
}

type OtherPads = { readonly key: string; readonly name: string; readonly kit?: Kit; readonly role?: Role['id'] };

/** What can stand in place of the pads: each kit on each role that plays it, and the masters of the roles. */
function othersOf(show: Show): readonly OtherPads[] {
  const nameOf = (role: string) => show.roles.find(({ id }) => id === role)?.name ?? '';
  const hits = show.kits.flatMap((kit) => {
    const roles = [...new Set(kit.channels.map(({ role }) => role))];
    const played = roles.length > 0 ? roles : show.roles.slice(0, 1).map(({ id }) => id);
    return played.map((role) => ({ key: `${kit.id} ${role}`, name: played.length > 1 ? `${kit.name}, ${nameOf(role)}` : kit.name, kit, role }));
  });
  return rolesCast(show).length > 0 ? [...hits, { key: 'masters', name: WORDS.roleMasters }] : hits;
} // prettier-ignore

function Other({ show, other: { kit, role } }: { readonly show: Show; readonly other: OtherPads }) {
  return (
    <View paddingHorizontal={16} paddingBottom={12}>
      {kit ? (
        <HitPads kit={kit} role={role} />
      ) : (
        <Grid
          role="group"
          aria-label={WORDS.roleMasters}
          gridTemplateColumns="repeat(auto-fill, minmax(280px, 1fr))"
          rowGap={10}
          columnGap={24}
        >
          <RoleFaders show={show} />
        </Grid>
      )}
    </View>
  );
}

type GoingProps = { readonly banks: readonly Bank[]; readonly bank: Bank; readonly at: string | null };

/** Back and on through the bank; what each brings is said to those who cannot see the pads. */
function Going({ banks, bank, at }: GoingProps) {
  const app = useHovlix();
  const palette = usePalette();
  const plays = usePlays();
  const say = useSession((session) => session.say);
  const nameOf = (id: string | undefined) => plays.find((one) => one.id === id)?.name;
  const button = (way: 1 | -1, word: string) => {
    const name = nameOf(padAfter(banks, bank, at, way)?.pad.look);
    const Arrow = way > 0 ? ChevronRight : ChevronLeft;
    return (
      <Button
        kind="quiet"
        label={name === undefined ? WORDS.bankEndsHere(word) : `${word}: ${name}`}
        disabled={name === undefined}
        onPress={() => !goOn(app, way) && say(WORDS.bankEndsHereAlone)}
      >
        <Arrow size={24} color={palette.text} aria-hidden />
      </Button>
    );
  };
  return (
    <Row flexShrink={0} paddingRight={6} role="group" aria-label={WORDS.throughTheBank}>
      {button(-1, WORDS.previousLook)}
      {button(1, WORDS.nextLook)}
    </Row>
  );
}
