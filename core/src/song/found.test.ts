import { steadyTempo } from '../time';
import { seconds } from '../units';
import { sectionsOn, songOfRecording, titleOfFile, type FoundMusic } from './found';

const found: FoundMusic = {
  type: 'wav',
  duration: seconds(90),
  tempo: steadyTempo(120),
  meter: [{ bar: 0, numerator: 4, denominator: 4 }],
  sections: [
    { bar: 0, role: 'Intro', letter: 'A' },
    { bar: 4, role: 'Chorus', letter: 'B' },
    { bar: 12, role: 'Verse', letter: 'C' },
    { bar: 20, role: 'Chorus', letter: 'B' },
  ],
};
const ids = () => {
  let count = 0;
  return () => `n${++count}`;
};
const file = { name: 'late_night take.wav', hash: 'ab'.repeat(32), bytes: 99 };

test('a song as it was heard: sections are numbered by name, and those alike have one colour', () => {
  const { title, sections, music } = songOfRecording(file, found, ids());
  expect(title).toBe('late night take');
  expect(music).toEqual({ hash: file.hash, name: file.name, type: 'wav', bytes: 99 });
  expect(sections.map(({ bar, name }) => [bar, name])).toEqual([
    [0, 'Intro'],
    [4, 'Chorus'],
    [12, 'Verse'],
    [20, 'Chorus 2'],
  ]);
  expect(sections[1]!.tint).toBe(sections[3]!.tint);
  expect(new Set(sections.map(({ id }) => id)).size).toBe(4);
});

test('tags go before the file’s name', () => {
  const tags = { title: 'Harbour lights', artist: 'The Tin Lantern', key: 'Am' };
  expect(songOfRecording({ ...file, tags }, found, ids())).toMatchObject({
    title: 'Harbour lights',
    by: 'The Tin Lantern',
    key: 'Am',
  });
  expect(songOfRecording({ ...file, name: '.mp3' }, found, ids()).title).toBe('Untitled');
  // The number it has on a record is none of its title; figures that are stay.
  const numbered = ['01 Salt.wav', '01. Salt.wav', '01-Salt.wav', '03_-_Salt.flac', '12 - Salt.mp3', '2) Salt.ogg'];
  expect(numbered.map(titleOfFile)).toEqual(numbered.map(() => 'Salt'));
  const meant = ['99 lamps', '2-step', '4-on-the-floor', '20. Juni', '7-11', '1.5 degrees', '01', 'Take 2'];
  expect(meant.map((name) => titleOfFile(`${name}.wav`))).toEqual(meant);
});

test('found sections go to the bars of a song that counts otherwise, by their moments', () => {
  const heard = songOfRecording(file, found, ids());
  // Found at 0, 8, 24 and 40 s. The song begins its bar 1 at 7.9 s and has bars of three at 90.
  const bars = {
    tempo: { anchors: [...steadyTempo(90, seconds(7.9)).anchors] },
    meter: [{ bar: 0, numerator: 3, denominator: 4 as const }],
  };
  expect(sectionsOn(bars, heard).map(({ bar, name }) => [bar, name])).toEqual([
    [0, 'Chorus'],
    [8, 'Verse'],
    [16, 'Chorus 2'],
  ]);
  expect(sectionsOn(heard, heard)).toEqual(heard.sections);
});
