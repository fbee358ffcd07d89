// What a new show needs next, offered in every place until it is ready for the night, or left.

import { router, usePathname } from 'expo-router';
import X from 'lucide-react-native/icons/x';
import { View } from '@tamagui/core';
import { firstLooks } from '@hovlix/core/light';
import { nextNumber, nextStep, PATH, rigInUse, type PathStep, type Show } from '@hovlix/core/show';
import { DEMO } from '../../host/files/demo-music';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useLink, useMay, useShow, type Hovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { usePalette } from '../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { useHealth } from '../stage/use-health';
import { WORDS } from './words';

const NAMES: Readonly<Record<PathStep, string>> = {
  connect: 'Connect',
  lamps: 'Lamps',
  looks: 'Looks',
  song: 'Song',
  gig: 'Gig',
};

const STEP_WORDS: Readonly<Record<PathStep, string>> = {
  connect: WORDS.firstChooseWhere,
  lamps: WORDS.nowAddLamps,
  looks: WORDS.nowMakeLooks,
  song: WORDS.nowBringSong,
  gig: '',
};

export function NextStep() {
  const app = useHovlix();
  const show = useShow((one) => one);
  const path = usePathname();
  const palette = usePalette();
  const may = useMay('operator');
  // A server that is lost for a moment is one all the same.
  const served = useLink((link) => link.conductor === 'server' || link.conductor === 'lost');
  const connected = useSession((session) => session.connected);
  const left = useSession((session) => session.pathLeft);
  const leavePath = useSession((session) => session.leavePath);
  const health = useHealth().state;
  if (!show || !may || left.includes(show.id)) return null;
  if (show.id === DEMO) return <ThisIsTheDemo path={path} />;
  // Without an output Connect was left for later, not done.
  const doneTone = (one: PathStep) => (one === 'connect' && health === 'none' ? '$warn' : '$live');
  const step = nextStep(show, !served || connected.includes(show.id));
  // In a song the lead sheet says itself what comes next.
  if (!step || /^\/(songs|looks|rig|gig|connect|shows)\/./.test(path) || path === '/settings') return null;
  return (
    <Row
      testID="next-step"
      role="region"
      aria-label={WORDS.firstSteps}
      gap={8}
      alignItems="flex-start"
      paddingLeft={16}
      paddingRight={4}
      paddingVertical={10}
      backgroundColor="$raised"
      borderBottomWidth={1}
      borderColor="$line"
    >
      <Column flex={1} minWidth={0} gap={8}>
        <Row gap={6} flexWrap="wrap" aria-hidden>
          {PATH.map((one, i) => (
            <Row key={one} gap={6}>
              <View
                width={8}
                height={8}
                borderRadius={4}
                backgroundColor={PATH.indexOf(step) > i ? doneTone(one) : one === step ? '$doing' : '$line'}
              />
              <Quiet color={one === step ? '$text' : '$quiet'} fontWeight={one === step ? '600' : '400'}>
                {NAMES[one]}
              </Quiet>
            </Row>
          ))}
        </Row>
        <Words>{STEP_WORDS[step]}</Words>
        <Row gap={8} flexWrap="wrap">
          <Offers app={app} show={show} step={step} path={path} />
        </Row>
      </Column>
      <Button label={WORDS.leaveFirstSteps} kind="quiet" onPress={() => leavePath(show.id, true)}>
        <X size={18} color={palette.quiet} aria-hidden />
      </Button>
    </Row>
  );
}

type OffersProps = { readonly app: Hovlix; readonly show: Show; readonly step: PathStep; readonly path: string };

function Offers({ app, show, step, path }: OffersProps) {
  const goOn = useSession((session) => session.goOnConnected);
  const setAdding = useSession((session) => session.setAdding);
  const addLamps = () => {
    goOn(show.id);
    setAdding(true);
    router.push('/rig');
  };
  switch (step) {
    case 'connect':
      return (
        <>
          {path !== '/connect' && (
            <Button kind="primary" onPress={() => router.push('/connect')}>
              {WORDS.connect}
            </Button>
          )}
          <Button kind={path === '/connect' ? 'primary' : 'plain'} onPress={addLamps}>
            {WORDS.lamps}
          </Button>
        </>
      );
    case 'lamps':
      return (
        <Button kind="primary" onPress={addLamps}>
          {WORDS.addMyLamps}
        </Button>
      );
    case 'looks':
      return (
        <>
          <Button kind="primary" onPress={() => makeFirstLooks(app, show)}>
            {WORDS.makeThreeFirst}
          </Button>
          <Button onPress={() => router.push('/looks/new')}>{WORDS.makeOneMyself}</Button>
        </>
      );
    case 'song':
      return path === '/songs' ? (
        <Words color="$quiet">{WORDS.addMusicBelow}</Words>
      ) : (
        <Button kind="primary" onPress={() => router.push('/songs')}>
          {WORDS.songs}
        </Button>
      );
    case 'gig':
      return null;
  }
}

function makeFirstLooks({ document }: Pick<Hovlix, 'document'>, show: Show): void {
  const looks = firstLooks(rigInUse(show).casting, nextNumber(show), freshId);
  document.together(looks.map((look) => ({ type: 'store-look', look })));
  router.push('/looks');
}

/** One plain line while the demo is on. */
function ThisIsTheDemo({ path }: { readonly path: string }) {
  const { shows } = useHovlix();
  const palette = usePalette();
  const leavePath = useSession((session) => session.leavePath);
  if (path !== '/songs') return null;
  return (
    <Row
      gap={10}
      paddingLeft={16}
      paddingRight={4}
      paddingVertical={8}
      backgroundColor="$raised"
      borderBottomWidth={1}
      borderColor="$line"
      testID="demo-line"
      role="region"
      aria-label={WORDS.demo}
    >
      <Quiet flex={1}>{WORDS.thisIsTheDemo}</Quiet>
      <Button onPress={() => void shows.begin(WORDS.myShow)}>{WORDS.beginMyOwn}</Button>
      <Button label={WORDS.hideThisLine} kind="quiet" onPress={() => leavePath(DEMO, true)}>
        <X size={18} color={palette.quiet} aria-hidden />
      </Button>
    </Row>
  );
}
