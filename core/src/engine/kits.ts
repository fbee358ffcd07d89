// Hits as sheets: each kit's hits on each role, worked out when they are first struck there.

import { leastFor, pickedPlaces, placeOfHit, strengthOf, strikeOf, type Hit, type Kit, type LookValue } from '../light';
import type { Sounding } from '../live';
import type { Role } from '../rig';
import type { Ground } from './ground';
import { FLASH_SHARE } from './flash-share';
import { sheetOf } from './sheets';
import type { Sheet, Struck } from './parts';

/**
 * Finds what a sounding note asks for; undefined where its kit, hit or role is gone, or nobody plays the role here. The
 * same answer for the same note, so nothing is made while it sounds.
 */
export function kitBook(kits: readonly Kit[], ground: Ground): (note: Sounding) => Struck | undefined {
  const hits = new Map(kits.flatMap((kit) => kit.hits.map((hit) => [`${kit.id}/${hit.id}`, { kit, hit }] as const)));
  const sheets = new Map<string, Sheet>();
  const known = new WeakMap<Sounding, Struck | null>();

  const sheetFor = (kit: Kit, hit: Hit, role: Role['id'], place: number): Sheet => {
    const key = `${kit.id}/${hit.id}/${role}/${place}`;
    let sheet = sheets.get(key);
    if (!sheet) sheets.set(key, (sheet = sheetOf(hit.name, [valueOf(hit, role, place)], {}, ground)));
    return sheet;
  };
  /** Of all notes that come to one sheet the same: how short they may be, and whether they are flashes. */
  const traits = new WeakMap<Sheet, { readonly least: number; readonly flashes: boolean }>();
  const traitsOf = (sheet: Sheet) => {
    let found = traits.get(sheet);
    if (!found) {
      const flashes = ground.most < Infinity && changeOf(sheet, ground) >= FLASH_SHARE;
      traits.set(sheet, (found = { least: leastOf(sheet, ground), flashes }));
    }
    return found;
  };
  /** What a hit is on a role, and the places that answer. */
  type Answer = { readonly kit: Kit; readonly hit: Hit; readonly places: readonly number[] };
  const answers = new Map<string, Answer>();
  const answerTo = ({ kit, hit, role }: Sounding): Answer | undefined => {
    const key = `${kit}/${hit}/${role}`;
    const before = answers.get(key);
    if (before) return before;
    const found = hits.get(`${kit}/${hit}`);
    const cast = ground.casts.get(role) ?? [];
    // What comes from outside may name anything: only what there is is kept.
    if (!found || cast.length === 0) return undefined;
    const answer = { ...found, places: pickedPlaces(found.hit.pick, cast.length) };
    answers.set(key, answer);
    return answer;
  };
  const find = (note: Sounding): Struck | undefined => {
    const answer = answerTo(note);
    if (!answer) return undefined;
    const { kit, hit, places } = answer;
    const nth = placeOfHit(hit, note.note, note.order, places.length);
    const sheet = sheetFor(kit, hit, note.role, nth < 0 ? -1 : places[nth]!);
    const { least, flashes } = traitsOf(sheet);
    return {
      sheet,
      hit,
      kit: kit.name,
      strike: strikeOf(hit, note.pulse, least),
      strength: strengthOf(hit, note.velocity),
      flashes,
    };
  };
  return (note) => {
    const before = known.get(note);
    if (before !== undefined) return before ?? undefined;
    const found = find(note);
    known.set(note, found ?? null);
    return found;
  };
}

function valueOf(hit: Hit, role: Role['id'], place: number): LookValue {
  const hold = <T>(value: T) => ({ type: 'hold' as const, value });
  const pick = place < 0 ? hit.pick : ({ type: 'places', places: [place] } as const);
  return {
    role,
    ...(pick ? { pick: pick as LookValue['pick'] } : {}),
    ...(hit.level === undefined ? {} : { level: hold(hit.level) }),
    ...(hit.colour === undefined ? {} : { colour: hold(hit.colour) }),
    ...(hit.more === undefined
      ? {}
      : { more: Object.fromEntries(Object.entries(hit.more).map(([name, setting]) => [name, hold(setting)])) }),
  };
}

/** The share of the rig's light that a hit may change: all of its lamps, where it dims them or colours them. */
function changeOf({ strands }: Sheet, { shares }: Ground): number {
  let share = 0;
  const lamps = new Set(strands.flatMap(({ heads }) => [...heads]));
  for (const head of lamps) share += shares[head]!;
  return share;
}

/** The slowest of its lamps says how short a hit may be. */
function leastOf({ strands }: Sheet, { heads }: Ground): number {
  let least = 0;
  for (const strand of strands)
    for (const head of strand.heads) least = Math.max(least, leastFor(heads[head]!.profile.kind));
  return least;
}
