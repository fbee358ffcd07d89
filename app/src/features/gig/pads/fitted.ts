// How many pads stand side by side where all of a bank shall be in sight at once.

/** Smaller than this no pad is, in pixels: one finds it in the dark, and its name can be read. */
const NARROWEST = 104;
const LOWEST = 64;
/** As wide as high, times this, a pad shows its light best. */
const SHAPE = 1.4;

export type FittedPads = {
  readonly columns: number;
  readonly rows: number;
  /** Of a pad, in pixels. */
  readonly height: number;
  /** Where not all of them fit; each has as many as the others but the last. */
  readonly pages: number;
};

/** @param width of the room there is, like height and gap in pixels. @param count of pads. */
export function fittedPads(width: number, height: number, count: number, gap: number): FittedPads {
  const most = (room: number, least: number) => Math.max(1, Math.floor((room + gap) / (least + gap)));
  const [mostColumns, mostRows] = [most(width, NARROWEST), most(height, LOWEST)];
  const pages = Math.max(1, Math.ceil(count / (mostColumns * mostRows)));
  const onOne = Math.max(1, Math.ceil(count / pages));
  const size = (columns: number) => {
    const rows = Math.ceil(onOne / columns);
    const [w, h] = [(width + gap) / columns - gap, (height + gap) / rows - gap];
    return { columns, rows, height: Math.floor(h), least: Math.min(w / SHAPE, h) };
  };
  const fits = Array.from({ length: mostColumns }, (_, i) => size(i + 1)).filter(({ rows }) => rows <= mostRows);
  const { columns, rows, height: high } = fits.reduce((best, one) => (one.least > best.least ? one : best));
  return { columns, rows, height: high, pages };
}
