// The five places: a bar on a phone, a rail on a wide screen, a slim one on a phone that lies on its side.

import type { ReactNode } from 'react';
import { Link, usePathname, type Href } from 'expo-router';
import Settings from 'lucide-react-native/icons/settings';
import { Text, useTheme, View } from '@tamagui/core';
import { GigIcon, ConnectIcon, LooksIcon, RigIcon, SongsIcon } from '../../ui/icons';
import { useSession } from '../../host/session';
import { NIGHT, DAY } from '../../ui/tokens';
import { WORDS } from './words';

const SettingsIcon = ({ color }: { readonly color: string }) => <Settings size={22} color={color} aria-hidden />;

const PLACES = [
  { path: '/rig', name: 'Rig', Icon: RigIcon },
  { path: '/looks', name: 'Looks', Icon: LooksIcon },
  { path: '/songs', name: 'Songs', Icon: SongsIcon },
  { path: '/gig', name: 'Gig', Icon: GigIcon },
  { path: '/connect', name: 'Connect', Icon: ConnectIcon },
] as const;

/** How wide they are at the side, in pixels. */
export const RAIL = { rail: 76, slim: 64 } as const;

export function Places({ side }: { readonly side: 'bar' | 'rail' | 'slim' }) {
  const path = usePathname();
  const rail = side !== 'bar';
  return (
    <View
      render="nav"
      aria-label={WORDS.places}
      flexDirection={rail ? 'column' : 'row'}
      backgroundColor="$sunken"
      borderColor="$line"
      borderTopWidth={rail ? 0 : 1}
      borderRightWidth={rail ? 1 : 0}
      width={side === 'bar' ? '100%' : RAIL[side]}
      height={rail ? '100%' : 60}
      paddingTop={side === 'rail' ? 16 : 0}
      gap={side === 'rail' ? 8 : 0}
    >
      {side === 'rail' && (
        <Text
          fontFamily="$heading"
          fontWeight="800"
          fontSize={22}
          color="$doingText"
          textAlign="center"
          marginBottom={8}
        >
          H
        </Text>
      )}
      {PLACES.map((place) => (
        <Place key={place.path} {...place} rail={rail} grows={side !== 'rail'} on={path.startsWith(place.path)} />
      ))}
      {side === 'rail' && (
        <View flex={1} justifyContent="flex-end" paddingBottom={12}>
          <Place
            path="/settings"
            name={WORDS.settings}
            Icon={SettingsIcon}
            rail
            grows={false}
            on={path === '/settings'}
          />
        </View>
      )}
    </View>
  );
}

function Place({
  path,
  name,
  Icon,
  rail,
  grows,
  on,
}: {
  readonly path: Href;
  readonly name: string;
  readonly Icon: (props: { readonly color: string }) => ReactNode;
  readonly rail: boolean;
  /** It has its part of all the room there is. */
  readonly grows: boolean;
  readonly on: boolean;
}) {
  const palette = useSession((session) => session.theme) === 'night' ? NIGHT : DAY;
  useTheme();
  return (
    <Link
      href={path}
      style={{ flex: grows ? 1 : undefined, textDecorationLine: 'none' }}
      aria-current={on ? 'page' : undefined}
    >
      <View
        width="100%"
        minHeight={grows ? 44 : 62}
        height={grows ? '100%' : undefined}
        alignItems="center"
        justifyContent="center"
        gap={4}
        position="relative"
        hoverStyle={{ backgroundColor: '$well' }}
      >
        {on && (
          <View
            position="absolute"
            backgroundColor="$doing"
            borderRadius={2}
            {...(rail ? { left: 0, top: 14, bottom: 14, width: 3 } : { top: 0, width: 36, height: 3 })}
          />
        )}
        <Icon color={on ? palette.text : palette.quiet} />
        <Text
          fontFamily="$body"
          fontSize={12}
          lineHeight={14}
          fontWeight={on ? '600' : '400'}
          color={on ? '$text' : '$quiet'}
        >
          {name}
        </Text>
      </View>
    </Link>
  );
}
