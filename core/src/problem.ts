// A problem is something the world did (a bad file, a newer version): a value that is returned, never thrown.
// Its words live here, in one exhaustive switch, so that every host says the same thing.

export type Problem =
  | { readonly code: 'empty-file'; readonly name: string }
  | { readonly code: 'not-audio'; readonly name: string }
  | { readonly code: 'cut-short'; readonly name: string; readonly detail: string }
  | { readonly code: 'audio-broken'; readonly name: string; readonly detail: string }
  | { readonly code: 'audio-silent'; readonly name: string }
  | { readonly code: 'audio-too-short'; readonly name: string; readonly seconds: number }
  | { readonly code: 'cancelled' }
  | { readonly code: 'not-zip'; readonly name: string }
  | { readonly code: 'missing-part'; readonly name: string; readonly part: string }
  | { readonly code: 'unsafe-path'; readonly name: string; readonly path: string }
  | { readonly code: 'too-big'; readonly name: string; readonly megabytes: number; readonly limit: number }
  | { readonly code: 'too-new'; readonly name: string; readonly version: number; readonly newest: number }
  | { readonly code: 'bad-json'; readonly name: string; readonly part: string; readonly detail: string }
  | { readonly code: 'bad-value'; readonly name: string; readonly path: string; readonly detail: string }
  | { readonly code: 'not-gdtf'; readonly name: string; readonly detail: string }
  | { readonly code: 'not-midi'; readonly name: string; readonly detail: string }
  | { readonly code: 'not-calendar'; readonly name: string; readonly detail: string }
  | { readonly code: 'storage-full' }
  | { readonly code: 'storage-broken'; readonly detail: string }
  | { readonly code: 'unreachable'; readonly what: string };

export type Result<T, P = Problem> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problem: P };

export const ok = <T>(value: T): Result<T, never> => ({ ok: true, value });
export const failed = <P>(problem: P): Result<never, P> => ({ ok: false, problem });

/** Carries a problem through a library that only understands throws. */
export class ProblemError extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(wordsFor(problem));
    this.name = 'ProblemError';
    this.problem = problem;
  }
}

/** What happened, where, and what to do next, in plain English. */
export function wordsFor(problem: Problem): string {
  switch (problem.code) {
    case 'empty-file':
      return `“${problem.name}” is empty. Choose the file again, or copy it once more from where it came.`;
    case 'not-audio':
      return `“${problem.name}” is not music Hovlix can read. Use a WAV, AIFF, FLAC, MP3 or OGG file.`;
    case 'cut-short':
      return `“${problem.name}” is cut short (${problem.detail}). Copy it once more from where it came.`;
    case 'audio-broken':
      return `“${problem.name}” could not be decoded (${problem.detail}). Save it again as WAV or FLAC and try that.`;
    case 'audio-silent':
      return `“${problem.name}” holds no sound, so there are no beats to find. Choose another file.`;
    case 'audio-too-short':
      return `“${problem.name}” lasts only ${problem.seconds.toFixed(1)} s. A song needs at least 1 second of music.`;
    case 'cancelled':
      return 'Cancelled. Nothing was changed.';
    case 'not-zip':
      return `“${problem.name}” is not a Hovlix show: it is not a zip file. Choose a file that ends in .hovlix.`;
    case 'missing-part':
      return `“${problem.name}” is not whole: “${problem.part}” is missing in it. Export the show again where it came from.`;
    case 'unsafe-path':
      return `“${problem.name}” was not opened: its entry “${problem.path}” points outside the show.`;
    case 'too-big':
      return `“${problem.name}” was not opened: unpacked it would take ${Math.round(problem.megabytes)} MB, and the limit is ${problem.limit} MB.`;
    case 'too-new':
      return `“${problem.name}” was saved by a newer Hovlix (format ${problem.version}; this one reads up to ${problem.newest}). Update Hovlix and open it again.`;
    case 'bad-json':
      return `“${problem.name}” is damaged: “${problem.part}” cannot be read (${problem.detail}).`;
    case 'bad-value':
      return `“${problem.name}” holds a value Hovlix cannot use, at ${problem.path}: ${problem.detail}.`;
    case 'not-gdtf':
      return `“${problem.name}” was not taken in: ${problem.detail}. A fixture type is a file that ends in .gdtf, as its maker gives it out.`;
    case 'not-midi':
      return `“${problem.name}” is not a MIDI file Hovlix can read: ${problem.detail}. Use a Standard MIDI File, which ends in .mid.`;
    case 'not-calendar':
      return `“${problem.name}” is not a calendar Hovlix can read: ${problem.detail}. Use an iCalendar file, which ends in .ics.`;
    case 'storage-full':
      return 'This browser has no room left for the show. What you see is safe until you close the page: export the show now, then free some space.';
    case 'storage-broken':
      return `The browser would not store the show (${problem.detail}). Export it now so that nothing is lost.`;
    case 'unreachable':
      return `${problem.what} does not answer. Hovlix keeps trying.`;
    default:
      return never(problem);
  }
}

/** Ends a switch that must know every case. */
export function never(value: never): never {
  throw new Error(`Impossible value: ${JSON.stringify(value)}`);
}

/** Stops at once on a bug; never used for bad input. */
export function assert(condition: boolean, broken: string): asserts condition {
  if (!condition) throw new Error(broken);
}
