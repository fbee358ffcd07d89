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
import { WORDS } from './words';

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
      <PlaceHead title={WORDS.hitKits}>
        <Button label={WORDS.backLooks} kind="quiet" onPress={() => router.push('/looks')}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
        <Button onPress={() => add(Kit.parse({ id: freshId(), name: WORDS.kit(nth), hits: [], channels: [] }))}>
          {WORDS.emptyKit}
        </Button>
        <Button
          kind="primary"
          onPress={() => add(drumKit(nth > 1 ? WORDS.drums(nth) : 'Drums', show.roles[0]?.id, freshId))}
        >
          {WORDS.drumKit}
        </Button>
      </PlaceHead>
      <Column gap={12} paddingHorizontal={12}>
        {show.kits.length === 0 && <Quiet padding={12}>{WORDS.kitSaysWhat}</Quiet>}
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
              <Button label={WORDS.change3(kit.name)} onPress={() => router.push(`/looks/kits/${kit.id}`)}>
                {WORDS.change}
              </Button>
            </Row>
          </Card>
        ))}
      </Column>
    </ScrollArea>
  );
}
