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
        <Button label="Back to the shows" kind="quiet" onPress={() => router.push('/shows')}>
          <ChevronLeft size={22} color={palette.text} aria-hidden />
        </Button>
        <Title render="h1" margin={0}>
          Settings
        </Title>
      </Row>
      <Column paddingHorizontal={12} gap={12} paddingBottom={24} maxWidth={720}>
        <Card title="Theme">
          <Segments
            label="Theme"
            value={theme}
            choices={[
              { value: 'night', name: 'Night, for the stage' },
              { value: 'day', name: 'Day, for the table' },
            ]}
            onChoose={setTheme}
          />
        </Card>
        <Card title="Flash safety">
          <Words>
            {!safety
              ? 'No show is open.'
              : safety.on
                ? `At most ${safety.most} flashes a second in this show.`
                : 'Flashes are not limited in this show.'}
          </Words>
          <Row>
            <Button onPress={() => router.push('/gig/flashes')}>Change flash safety</Button>
          </Row>
        </Card>
        <Card title="Blackout">
          <Typed label="Fade of a blackout, seconds" numeric value={fade} read={decimal(0, 60)} onChange={setFade} />
        </Card>
        <Keeping />
        <Card title="This screen">
          <Words>
            {device ?? 'A screen of the computer itself'}: {RIGHT_WORDS[may]}.
          </Words>
          <Quiet>Rights of phones and tablets are given in Connect, on the computer.</Quiet>
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
    <Card title="Data on this device">
      <Words>
        {room.persisted
          ? 'The browser has promised to keep your shows and music.'
          : 'When storage runs out, a browser may delete what pages keep. Ask it to keep this.'}
      </Words>
      {!room.persisted && (
        <Row>
          <Button onPress={() => void askToKeep().then(() => queries.invalidateQueries({ queryKey: ['room'] }))}>
            Keep this data
          </Button>
        </Row>
      )}
    </Card>
  );
}
