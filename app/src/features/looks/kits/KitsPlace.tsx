// Hit kits: what notes do in light.

import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import { drumKit, Kit } from '@hovlix/core/light';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { Card } from '../../../ui/card';
import { usePalette } from '../../../ui/palette';
import { Button, Column, PlaceHead, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { HitPads } from '../../../ui/HitPads';

export function KitsPlace() {
  const app = useHovlix();
  const palette = usePalette();
  const show = useShow((one) => one);
  if (!show) return null;
  const add = (kit: Kit) => {
    app.document.make({ type: 'store-kit', kit });
    router.push(`/looks/kits/${kit.id}`);
  };
  const nth = show.kits.length + 1;
  return (
    <ScrollArea>
      <PlaceHead title="Hit kits">
        <Button label="Back to the looks" kind="quiet" onPress={() => router.push('/looks')}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
        <Button onPress={() => add(Kit.parse({ id: freshId(), name: `Kit ${nth}`, hits: [], channels: [] }))}>
          Empty kit
        </Button>
        <Button
          kind="primary"
          onPress={() => add(drumKit(nth > 1 ? `Drums ${nth}` : 'Drums', show.roles[0]?.id, freshId))}
        >
          Drum kit
        </Button>
      </PlaceHead>
      <Column gap={12} paddingHorizontal={12}>
        {show.kits.length === 0 && (
          <Quiet padding={12}>
            A kit says what each note does in light: the kick all white, the snare every other lamp red. Play it with
            pads here, or with drums and keys over MIDI. Begin with a drum kit and make it yours.
          </Quiet>
        )}
        {show.kits.map((kit) => (
          <Card key={kit.id} title={kit.name}>
            <HitPads kit={kit} role={kit.channels[0]?.role ?? show.roles[0]?.id} small />
            <Row justifyContent="space-between" gap={8}>
              <Quiet flexShrink={1}>
                {kit.hits.length} {kit.hits.length === 1 ? 'hit' : 'hits'}
                {kit.channels.map(
                  ({ channel, role }) =>
                    `, channel ${channel} on ${show.roles.find(({ id }) => id === role)?.name ?? 'a role that is gone'}`,
                )}
              </Quiet>
              <Button label={`Change ${kit.name}`} onPress={() => router.push(`/looks/kits/${kit.id}`)}>
                Change
              </Button>
            </Row>
          </Card>
        ))}
      </Column>
    </ScrollArea>
  );
}
