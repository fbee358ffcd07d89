// What becomes of files that are chosen or dropped: shows are opened, MIDI files and recordings become songs, a playlist
// says in what order.

import { router } from 'expo-router';
import { counted, someOf } from '@hovlix/core/counted';
import { SetList } from '@hovlix/core/gig';
import { wordsFor } from '@hovlix/core/problem';
import { titleOfFile } from '@hovlix/core/song';
import { midiFormat, sheetFormats } from '../../../host/files/formats';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { useOpenFile } from '../../../ui/use-open-file';
import { WORDS } from './words';

/** What lies beside music in a folder. By itself it is tried as a recording, and why it is none is said. */
const BESIDE = /^(image|text|video|font)\/|^application\/(pdf|json|zip)$/;

const kindOf = ({ name, type }: File, alone: boolean) =>
  /\.hovlix$/i.test(name)
    ? 'show'
    : /\.(midi?|kar)$/i.test(name)
      ? 'midi'
      : /\.m3u8?$/i.test(name)
        ? 'playlist'
        : !alone && BESIDE.test(type)
          ? 'beside'
          : 'recording';

export function useBringIn(): (files: readonly File[]) => void {
  const { document, intake } = useHovlix();
  const openFile = useOpenFile();
  const say = useSession((session) => session.say);
  const hush = useSession((session) => session.hush);

  /** A MIDI file becomes a song without music. */
  const midi = async (file: File): Promise<void> => {
    const { show } = document.store.getState();
    const { readMidi, songOfMidi } = await midiFormat();
    const read = readMidi(new Uint8Array(await file.arrayBuffer()), file.name, navigator.language);
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    if (!show) return;
    const { commands, left } = songOfMidi(read.value, titleOfFile(file.name), show, freshId);
    if (!document.together(commands)) return;
    if (left.length > 0) say(`“${file.name}”: ${left.join(' ')}`);
    const [first] = commands;
    if (first?.type === 'add-song') router.push(`/songs/${first.added.id}`);
  };

  /** A playlist becomes a set of the songs it names. */
  const playlist = async (file: File, beside: string): Promise<void> => {
    const { leftOutWords, readM3u } = await sheetFormats();
    const { show } = document.store.getState();
    const { language } = navigator;
    const read = show && readM3u(new Uint8Array(await file.arrayBuffer()), file.name, show, freshId, { language });
    if (!show || !read) return;
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    const { entries } = read.value;
    const name =
      file.name
        .replace(/\.m3u8?$/i, '')
        .trim()
        .slice(0, 60) || 'Playlist';
    document.make({ type: 'store-set', set: SetList.parse({ id: freshId(), name, entries }) });
    const now = entries.length === 1 ? 'is' : 'are';
    say(`${counted(entries.length, 'song')} of “${file.name}” ${now} a set now.${leftOutWords(read.value)}${beside}`, {
      undo: document.takingBack(),
    });
  };

  const bring = async (files: readonly File[]): Promise<void> => {
    hush();
    const of = (kind: ReturnType<typeof kindOf>) => files.filter((file) => kindOf(file, files.length === 1) === kind);
    const shows = of('show');
    if (shows.length > 0) return openFile(shows);
    for (const file of of('midi')) await midi(file);
    const recordings = of('recording');
    const songs = recordings.length > 0 ? await intake.add(recordings) : [];
    const beside = of('beside').map(({ name }) => name);
    const leftOut = beside.length > 0 ? ` Left out, as it is no music: ${someOf(beside)}.` : '';
    const lists = of('playlist');
    if (lists.length === 0 && leftOut) say(leftOut.trim());
    for (const file of lists) await playlist(file, leftOut);
    if (files.length === 1 && recordings.length === 1) showOnly(songs[0]);
  };

  /** One song is what one wants to see, or why there is none; of many, the list says how they are. */
  const showOnly = (song: string | undefined): void => {
    const { items } = intake.store.getState();
    const item = items.at(-1);
    if (!item || (song && item.found?.song !== song)) return;
    if (item.wrong) say(item.wrong, { tone: 'bad' });
    if (item.back) say(WORDS.isBack(item.name));
    intake.drop(item.id);
    if (song) router.push(`/songs/${song}`);
  };
  return (files) => void bring(files);
}
