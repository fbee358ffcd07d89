// The frame of every place: stage strip above, the five places below or at the side, the pulse bar always in reach. On a
// phone that lies on its side, stage and pulse stand beside the place, which has all of the height.

import { memo, type ReactNode } from 'react';
import { usePathname } from 'expo-router';
import { useMedia, View } from '@tamagui/core';
import { useSession } from '../../host/session';
import { Column } from '../../ui/pieces';
import { PulseBar } from '../pulse/PulseBar';
import { StageStrip } from '../stage/StageStrip';
import { BAR, Lock } from './Lock';
import { NextStep } from './NextStep';
import { Alarm } from './Alarm';
import { Over } from './Over';
import { Passing } from './Passing';
import { Places } from './Places';
import { Said } from './Said';
import { Shortcuts } from './Shortcuts';
import { StepPills } from './Steps';
import { useIsEmpty, Welcome } from './Welcome';
import { WORDS } from './words';

// What needs nothing of the frame is made once: as elements that stay the same it is not drawn anew with each place.
const STRIP = <StepPills />;
const NOTICES = (
  <View style={{ gridArea: 'notice' }}>
    <Alarm />
  </View>
);
const NEXT = <NextStep />;
const OVER = (
  <>
    <Over />
    <Said />
  </>
);
const pulse = (stacked: boolean) => (
  <View render="section" aria-label={WORDS.pulseAndLight} style={{ gridArea: 'pulse' }}>
    <PulseBar stacked={stacked} />
  </View>
);
const [PULSE, STACKED_PULSE] = [pulse(false), pulse(true)];
const UNSEEN = (
  <>
    <Passing />
    <Shortcuts />
  </>
);
const Strip = memo(StageStrip);

const BESIDE = {
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) 208px',
  gridTemplateRows: 'auto minmax(0, 1fr) auto',
  gridTemplateAreas: '"notice notice" "main stage" "main pulse"',
} as const;

export function Shell({ children }: { readonly children: ReactNode }) {
  const { wide, short, flat } = useMedia();
  const empty = useIsEmpty();
  const path = usePathname();
  // For the amp and for the foot: nothing else is on the screen.
  const alone = path === '/gig/large' || path === '/gig/foot';
  // Pads take all but the pulse bar.
  const bare = alone || path === '/gig/pads';
  const gig = path === '/gig';
  const beside = flat && !bare;
  const locked = useSession((session) => session.locked);
  const rail = wide || flat;
  const side = flat ? 'slim' : 'rail';
  const strip = flat ? '100%' : wide ? (gig ? 150 : 196) : short ? (gig ? 76 : 100) : gig ? 110 : 158;
  return (
    <View
      flex={1}
      flexDirection={rail ? 'row' : 'column'}
      backgroundColor="$ground"
      minHeight={0}
      height="100%"
      overflow="hidden"
      // Where there are no places for the lock to cover, it has room of its own.
      paddingBottom={locked && bare ? BAR : 0}
    >
      {rail && !bare && <Places side={side} />}
      <Column flex={1} minWidth={0} minHeight={0} style={beside ? BESIDE : {}}>
        {!bare && <Strip height={strip}>{STRIP}</Strip>}
        {NOTICES}
        <View render="main" flex={1} minHeight={0} position="relative" style={{ gridArea: 'main' }}>
          {/* Within: what opens over a place lies over this too, and has its room. */}
          {!bare && NEXT}
          {empty && <Welcome />}
          {/* Kept mounted, so that an address with a song in it leads there once a show is open. */}
          <View flex={1} minHeight={0} display={empty ? 'none' : 'flex'}>
            {children}
          </View>
          {OVER}
        </View>
        {!alone && (beside ? STACKED_PULSE : PULSE)}
      </Column>
      {!rail && !bare && <Places side="bar" />}
      <Lock over={rail && !bare ? side : null} />
      {UNSEEN}
    </View>
  );
}
