// Readers and writers of files, each fetched when it is first needed: together they are half as big as the app. Each is
// asked for here only: Metro puts what two places ask for into the first load.

/** Sheets on paper, set lists and playlists as text. */
export const sheetFormats = () => import('./sheet-formats');

/** Timetables as calendar files (iCalendar). */
export const calendarFormat = () => import('@hovlix/core/calendar');

export const midiFormat = () => import('@hovlix/core/midi');

/** Shows with their music, and lamp types (GDTF). */
export const zipFormats = () => import('./zip-formats');

export type MidiFormat = Awaited<ReturnType<typeof midiFormat>>;
