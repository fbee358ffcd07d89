// What belongs to this device and this show, and to no song.

import { router } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { askToKeep, roomQuery } from '../../data/queries';
import { useLink, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { RIGHT_WORDS } from '@hovlix/core/live';
import { Card } from '../../ui/card';
import { decimal, Typed } from '../../ui/form';
import { usePalette } from '../../ui/palette';
import { Button, Column, Quiet, Row, Title, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { WORDS } from './words';

export function SettingsPlace() {
  const palette = usePalette();
  const theme = useSession((session) => session.theme);
  const setTheme = useSession((session) => session.setTheme);
  const fade = useSession((session) => session.blackoutFade);
  const setFade = useSession((session) => session.setBlackoutFade);
  const safety = useShow((show) => show.safety);
  const may = useLink((link) => link.may);
  const device = useLink((link) => link.device);
  return (
    <ScrollArea>
      <Row paddingLeft={4} paddingRight={16} paddingVertical={10}>
        <Button label={WORDS.backShows} kind="quiet" onPress={() => router.push('/shows')}>
          <ChevronLeft size={22} color={palette.text} aria-hidden />
        </Button>
        <Title render="h1" margin={0}>
          {WORDS.settings}
        </Title>
      </Row>
      <Column paddingHorizontal={12} gap={12} paddingBottom={24} maxWidth={720}>
        <Card title={WORDS.theme}>
          <Segments
            label={WORDS.theme}
            value={theme}
            choices={[
              { value: 'night', name: WORDS.nightStage },
              { value: 'day', name: WORDS.dayTable },
            ]}
            onChoose={setTheme}
          />
        </Card>
        <Card title={WORDS.flashSafety}>
          <Words>
            {!safety ? WORDS.noShowOpen : safety.on ? WORDS.mostFlashesSecond(safety.most) : WORDS.flashesNotLimited}
          </Words>
          <Row>
            <Button onPress={() => router.push('/gig/flashes')}>{WORDS.changeFlashSafety}</Button>
          </Row>
        </Card>
        <Card title={WORDS.blackout}>
          <Typed label={WORDS.fadeBlackoutSeconds} numeric value={fade} read={decimal(0, 60)} onChange={setFade} />
        </Card>
        <Keeping />
        <Card title={WORDS.thisScreen}>
          <Words>
            {device ?? 'A screen of the computer itself'}: {RIGHT_WORDS[may]}.
          </Words>
          <Quiet>{WORDS.rightsPhonesTablets}</Quiet>
        </Card>
      </Column>
    </ScrollArea>
  );
}

/** Asks the browser not to clear away what is kept here. */
function Keeping() {
  const queries = useQueryClient();
  const room = useQuery(roomQuery).data;
  if (!room) return null;
  return (
    <Card title={WORDS.dataDevice}>
      <Words>{room.persisted ? WORDS.browserHasPromised : WORDS.whenStorageRuns}</Words>
      {!room.persisted && (
        <Row>
          <Button onPress={() => void askToKeep().then(() => queries.invalidateQueries({ queryKey: ['room'] }))}>
            {WORDS.keepThisData}
          </Button>
        </Row>
      )}
    </Card>
  );
}
