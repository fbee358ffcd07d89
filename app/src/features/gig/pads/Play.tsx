// The playing page: the pads of a bank, hits of a kit, or role masters; next and previous; and what is running.

import { useState } from 'react';
import { useRouter } from 'expo-router';
import { View } from '@tamagui/core';
import Maximize2 from 'lucide-react-native/icons/maximize-2';
import { banksOf, type Kit } from '@hovlix/core/light';
import type { Role } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { useHovlix, useLive } from '../../../host/hovlix';
import { Chip } from '../../../ui/Chip';
import { HitPads } from '../../../ui/HitPads';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Grid } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { RoleFaders, rolesCast } from '../../pulse/RoleFaders';
import { BankSheet } from './BankSheet';
import { Going } from './Going';
import { Pads } from './Pads';
import { RunningChip } from './Running';
import { WORDS } from './words';

export function Play({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const router = useRouter();
  const palette = usePalette();
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
        <Going banks={banks} bank={bank} at={place.look}>
          <Button kind="quiet" label={WORDS.padsOnly} onPress={() => router.push('/gig/pads')}>
            <Maximize2 size={20} color={palette.text} aria-hidden />
          </Button>
        </Going>
      </Row>
      {other ? (
        <Other show={show} other={other} />
      ) : (
        <Pads banks={banks} bank={bank} onChange={() => setChanging(true)} />
      )}
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
    return played.map((role) => ({
      key: `${kit.id} ${role}`,
      name: played.length > 1 ? `${kit.name}, ${nameOf(role)}` : kit.name,
      kit,
      role,
    }));
  });
  return rolesCast(show).length > 0 ? [...hits, { key: 'masters', name: WORDS.roleMasters }] : hits;
}

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
