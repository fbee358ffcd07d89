// Songs by the time of another machine.

import { testShow } from '../testing/show';
import { id, seconds } from '../units';
import { songAtTimecode } from './timecode';

test('the song that began last and is not over; one without a time only while it is chosen', () => {
  const [song] = testShow().songs;
  const songs = [
    { ...song!, id: id<'Song'>('one'), timecode: 3600, duration: seconds(60) },
    { ...song!, id: id<'Song'>('two'), timecode: 3650, duration: seconds(60) },
    { ...song!, id: id<'Song'>('bare'), duration: seconds(60) },
  ];
  const at = (time: number, chosen?: string) => {
    const found = songAtTimecode(songs, time, chosen);
    return found && [found.song.id, found.songTime];
  };
  expect(at(3600)).toEqual(['one', 0]);
  expect(at(3649.5)).toEqual(['one', 49.5]);
  expect(at(3655)).toEqual(['two', 5]);
  expect([at(3710), at(12), at(3599.9)]).toEqual([undefined, undefined, undefined]);
  expect(at(12, 'bare')).toEqual(['bare', 12]);
});
