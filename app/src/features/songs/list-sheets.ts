// What opens from the list of songs, in one script.

export { SongSheet } from './about/SongSheet';
export { BareSheet } from './BareSheet';
export { FindSongs } from './FindSongs';
