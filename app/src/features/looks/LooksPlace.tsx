// Every look and chase as a picture of the rig in it. A tap turns it on, another turns it off.

import { useState } from 'react';
import { router } from 'expo-router';
import Search from 'lucide-react-native/icons/search';
import { useMay, useShow } from '../../host/hovlix';
import { Chip } from '../../ui/Chip';
import { Typed } from '../../ui/form';
import { usePalette } from '../../ui/palette';
import { Growing } from '../../ui/Growing';
import { Button, Column, PlaceHead, Quiet, Row, Grid } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { CardSheet } from './CardSheet';
import { LookCard } from './LookCard';
import { foldersOf, shownPlays } from './model';
import { NewChase } from './chase/NewChase';
import { WORDS } from './words';

type Filter = { readonly role?: string; readonly folder?: string; readonly kind?: 'chases' };

export function LooksPlace() {
  const palette = usePalette();
  const show = useShow((one) => one);
  const may = useMay('operator');
  const [filter, setFilter] = useState<Filter>({});
  const [text, setText] = useState<string | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  if (!show) return null;
  const all = [...show.looks, ...show.chases];
  const shown = shownPlays(show, text ?? '', filter);
  const opened = all.find((one) => one.id === open);
  const chosen = (one: Filter) => JSON.stringify(one) === JSON.stringify(filter);
  const chip = (name: string, one: Filter) => (
    <Chip key={JSON.stringify(one)} name={name} on={chosen(one)} onPress={() => setFilter(chosen(one) ? {} : one)} />
  );
  return (
    <ScrollArea>
      <PlaceHead title={WORDS.looks}>
        <Button
          label={WORDS.searchTheLooks}
          kind="quiet"
          pressed={text !== null}
          onPress={() => setText(text === null ? '' : null)}
        >
          <Search size={20} color={palette.text} aria-hidden />
        </Button>
        {may && <NewChase show={show} />}
        {may && (
          <Button kind="primary" onPress={() => router.push('/looks/new')}>
            {WORDS.newLook}
          </Button>
        )}
      </PlaceHead>
      {text !== null && (
        <Column paddingHorizontal={14} paddingBottom={12}>
          <Typed label={WORDS.nameNumberFolder} value={text} read={(typed) => ({ value: typed })} onChange={setText} />
        </Column>
      )}
      <ScrollArea sideways>
        <Row gap={8} paddingHorizontal={14} paddingBottom={12}>
          {chip(WORDS.all(all.length), {})}
          {show.chases.length > 0 && chip(WORDS.chases(show.chases.length), { kind: 'chases' })}
          <Chip
            name={show.kits.length > 0 ? WORDS.hitKits(show.kits.length) : WORDS.hitKitsAlone}
            on={false}
            onPress={() => router.push('/looks/kits')}
          />
          {foldersOf(show).map((folder) => chip(folder, { folder }))}
          {show.roles.map((role) => chip(role.name, { role: role.id }))}
        </Row>
      </ScrollArea>
      <Growing items={shown}>
        {(some) => (
          <Grid gridTemplateColumns="repeat(auto-fill, minmax(168px, 1fr))" gap={12} paddingHorizontal={12}>
            {some.map((one) => (
              <LookCard key={one.id} play={one} roles={show.roles} onMore={() => setOpen(one.id)} />
            ))}
          </Grid>
        )}
      </Growing>
      {all.length === 0 && (
        <Column padding={24} gap={12} alignItems="flex-start">
          <Quiet>{WORDS.lookPictureLight}</Quiet>
          {may && (
            <Button kind="primary" onPress={() => router.push('/looks/new')}>
              {WORDS.makeFirstLook}
            </Button>
          )}
        </Column>
      )}
      {all.length > 0 && shown.length === 0 && <Quiet padding={24}>{WORDS.noLookMatches}</Quiet>}
      {opened && <CardSheet show={show} play={opened} onClose={() => setOpen(null)} />}
    </ScrollArea>
  );
}
