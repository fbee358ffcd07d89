// A set on paper and in files: what one tapes to the floor, and the order for other programs.

import { counted } from '@hovlix/core/counted';
import type { SetList } from '@hovlix/core/gig';
import { wordsFor } from '@hovlix/core/problem';
import type { Show } from '@hovlix/core/show';
import { sheetFormats } from '../../../host/files/formats';
import { saveFile } from '../../../host/files/save-file';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { FileButton } from '../../../ui/FileButton';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly set: SetList };

export function SetFiles({ show, set }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const bring = async (file: File) => {
    const { leftOutWords, readM3u } = await sheetFormats();
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { language } = navigator;
    const read = readM3u(bytes, file.name, show, freshId, { before: set.entries, language });
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    const { entries } = read.value;
    document.make({ type: 'store-set', set: { ...set, entries: [...entries] } });
    const songs = entries.filter(({ kind }) => kind === 'song').length;
    say(WORDS.theOrderOf(file.name, counted(songs, 'song'), leftOutWords(read.value)), { undo: document.takingBack() });
  };
  return (
    <Column gap={8}>
      <Quiet fontWeight="600">{WORDS.paperFiles}</Quiet>
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => void print('set', show, set)}>{WORDS.setListPdf}</Button>
        <Button onPress={() => void print('card', show, set)}>{WORDS.pedalCardPdf}</Button>
        <Button onPress={() => void printLabels(show)}>{WORDS.labelsCutOut}</Button>
        <Button onPress={() => void save('csv', show, set)}>{WORDS.csv}</Button>
        <Button onPress={() => void save('m3u', show, set)}>{WORDS.playlistM3u}</Button>
        <FileButton
          label={WORDS.chooseAPlaylist}
          accept=".m3u,.m3u8,.txt"
          onFiles={(files) => files[0] && void bring(files[0])}
        >
          {WORDS.orderFromPlaylist}
        </FileButton>
      </Row>
    </Column>
  );
}

async function print(what: 'set' | 'card', show: Show, set: SetList): Promise<void> {
  const { madeNow, pedalCardPdf, setListPdf } = await sheetFormats();
  const bytes = await (what === 'set' ? setListPdf : pedalCardPdf)(show, set, madeNow());
  saveFile(`${set.name}, ${what === 'set' ? 'set list' : 'pedal card'}.pdf`, bytes as BlobPart, 'application/pdf');
}

async function printLabels(show: Show): Promise<void> {
  const { labelsPdf, madeNow } = await sheetFormats();
  saveFile(WORDS.labelsPdf(show.name), (await labelsPdf(show, madeNow())) as BlobPart, 'application/pdf');
}

async function save(as: 'csv' | 'm3u', show: Show, set: SetList): Promise<void> {
  const { setCsv, setM3u } = await sheetFormats();
  if (as === 'csv') saveFile(`${set.name}.csv`, setCsv(show, set), 'text/csv');
  else saveFile(`${set.name}.m3u8`, setM3u(show, set), 'audio/x-mpegurl');
}
