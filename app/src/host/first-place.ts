// Which scripts the page that is opened first needs: its frame and its place.

/** What an address leads to first leads on to the list of songs. */
const LEADS_ON: Readonly<Record<string, string>> = { '': 'songs' };

/**
 * @param path of an address, such as `/songs/ferry`.
 * @param files of all places, as the router names them: `./songs/[song].tsx`.
 * @returns those to fetch before anything is drawn; without the place where none has this address.
 */
export function firstFiles(path: string, files: readonly string[]): readonly string[] {
  const steps = path.split('/').filter((step) => step !== '');
  const ways = [steps, LEADS_ON[steps.join('/')]?.split('/')].filter((way) => way !== undefined);
  const places = ways.map((way) => files.filter((file) => fits(way, file)).sort((a, b) => open(a) - open(b))[0]);
  return [...files.filter((file) => /^\.\/_layout\./.test(file)), ...places.filter((file) => file !== undefined)];
}

function fits(way: readonly string[], file: string): boolean {
  const steps = file
    .replace(/^\.\//, '')
    .replace(/\.tsx?$/, '')
    .split('/');
  if (steps.at(-1) === 'index') steps.pop();
  return steps.length === way.length && steps.every((step, i) => step.startsWith('[') || step === way[i]);
}

/** How many of its steps stand for anything. */
const open = (file: string): number => file.split('[').length;
