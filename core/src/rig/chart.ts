// The channel chart of a lamp's manual, copied as text, turned into channels and their ranges.

import { attributeOf, usualChannel } from './attributes';
import { attributeNamed } from './chart-names';
import { onlyStrobes, openOf } from './amounts';
import { meaningOf, slotColour, type Meaning } from './chart-words';
import { PATTERNS, type Channel, type Gobo, type Profile, type Range } from './schema';

/** Something in the text that was not understood, or only guessed: for the user to settle. */
export type Unsettled = {
  /** Counted from 1. */
  readonly line: number;
  readonly text: string;
  readonly why: string;
  /** The channel it belongs to, where it belongs to one. */
  readonly channel?: number;
};

export type Chart = {
  readonly channels: readonly Channel[];
  readonly colours: Profile['colours'];
  readonly gobos: readonly Gobo[];
  /** Degrees, where the text says them. */
  readonly panRange?: number;
  readonly tiltRange?: number;
  readonly unsettled: readonly Unsettled[];
};

/** A manual's chart is a few hundred lines; a whole book was not meant. */
const MOST_LINES = 4000;
const LONGEST_LINE = 4000;
const MOST_LETTERS = 400_000;

/**
 * Reads lines such as “1 Pan”, “CH 2: Pan fine”, “8 Shutter 0-9 closed 10-199 strobe slow-fast 200-255 open”, with ranges on
 * the channel's line or on lines below it, in tables with tabs, bars or slashes between the columns. Nothing is dropped
 * in silence: what is not understood is in `unsettled`, and a channel without a known name is kept under its own.
 */
export function readChart(text: string): Chart {
  const drafts: Draft[] = [];
  const unsettled: Unsettled[] = [];
  const lines = text.split(/\r?\n/).slice(0, MOST_LINES);
  let letters = 0;
  lines.forEach((line, i) => {
    letters += line.length;
    if (line.length > LONGEST_LINE || letters > MOST_LETTERS)
      return void unsettled.push({ line: i + 1, text: line.slice(0, 80), why: 'more text than a chart has' });
    for (const cell of piecesOf(line)) readPiece(cell, i + 1, drafts, unsettled);
  });
  const { channels, owners } = joined(drafts, unsettled);
  const wheel = wheelOf(dimming(channels.map(meant)), owners, unsettled);
  return {
    channels: inCells(wheel.channels),
    colours: wheel.colours,
    gobos: wheel.gobos,
    ...turnsIn(text.slice(0, MOST_LETTERS)),
    unsettled: unsettled.sort((a, b) => a.line - b.line),
  };
}

type RangeDraft = { readonly from: number; readonly to: number; readonly text: string; readonly line: number };
type Draft = {
  readonly places: readonly number[];
  readonly text: string;
  readonly line: number;
  readonly ranges: RangeDraft[];
};

const DASH = '(?:-|–|—|−|~|～|\\.{2,3}|…|to|bis|à|a|>|→)';
const SPAN = new RegExp(`(\\d{1,5})\\s*${DASH}\\s*(\\d{1,5})(?![\\d.]*\\s*(?:%|hz|rpm|°|deg|bit|k\\b))`, 'gi');
const CHANNEL = /^(?:dmx\s*)?(?:channel|chan|ch|kanal|canal|can|c)?\s*[.#:([]?\s*(\d{1,5})\b\s*[.:,)\]=|–—-]*\s*/i;
const PAIR =
  /^(?:dmx\s*)?(?:channels?|chan|ch|kanal|canal|c)?\s*[.#:]?\s*(\d{1,3})\s*[+/&,-]\s*(\d{1,3})(?:\s*[+/&,-]\s*(\d{1,3}))?\b\s*[.:,)\]=|–—]*\s*/i;

/** One line may hold several channels with slashes between: “1 Pan / 2 Pan fine”. */
function piecesOf(line: string): readonly string[] {
  const clean = line
    .replace(/[\t|;]+/g, '  ')
    .replace(/[•●▪]/g, ' ')
    .replace(/\u00a0/g, ' ')
    .trim();
  if (clean === '') return [];
  return clean
    .split(/\s\/\s(?=(?:ch\w*\.?\s*)?\d)/i)
    .flatMap(inNumbers)
    .map((piece) => piece.trim());
}

/** A list that was copied as one line: “1. Red 2. Green 3. Blue”, “CH1 Red CH2 Green”, “[1] Red [2] Green”. */
function inNumbers(line: string): readonly string[] {
  const first = NUMBERED.exec(line);
  if (!first) return [line];
  let next = Number(first[1] ?? first[2]) + 1;
  const cuts = [0];
  for (const found of line.matchAll(AGAIN)) {
    if (Number(found[1] ?? found[2]) !== next) continue;
    cuts.push(found.index);
    next++;
  }
  return cuts.map((cut, i) => line.slice(cut, cuts[i + 1]));
}
const NUMBER = '(?:(?:ch|channel|kanal|canal)\\.?\\s{0,2}(\\d{1,3})\\b|[[(]?(\\d{1,3})[.:)\\]](?=\\s))';
const NUMBERED = new RegExp(`^${NUMBER}`, 'i');
const AGAIN = new RegExp(`\\s(?=\\S)${NUMBER}`, 'gi');

function readPiece(piece: string, line: number, drafts: Draft[], unsettled: Unsettled[]): void {
  const last = drafts.at(-1);
  const next = (last?.places.at(-1) ?? 0) + 1;
  const pair = PAIR.exec(piece);
  if (
    pair &&
    Number(pair[1]) === next &&
    Number(pair[2]) === next + 1 &&
    /[a-zäöüéè]{2}/i.test(piece.slice(pair[0].length))
  ) {
    const places = [pair[1], pair[2], pair[3]].flatMap((one) => (one ? [Number(one)] : []));
    return begin(places, piece.slice(pair[0].length), line, drafts, unsettled);
  }
  const spans = spansIn(piece);
  if (spans.length > 0 && spans[0]!.at < 2) {
    if (last) return addRanges(piece, line, last);
    return void unsettled.push({ line, text: piece, why: 'a range before any channel' });
  }
  const numbered = CHANNEL.exec(piece);
  const number = numbered ? Number(numbered[1]) : 0;
  const rest = numbered ? piece.slice(numbered[0].length) : piece;
  const named = /[^\s\d.,:;()%-]{1,}/.test(rest);
  // A number that is not the next channel may be a single value: “0 closed”, “255 open”.
  if (numbered && last && number !== next && number <= 255 && !/^c/i.test(piece) && isValue(number, last, rest))
    return void last.ranges.push({ from: number, to: number, text: rest, line });
  if (numbered && number > 0 && named) return begin([number], rest, line, drafts, unsettled);
  if (/\b(pan|tilt)\b.*\d\s*(°|deg)/i.test(piece)) return;
  if (/\d/.test(piece) || (last && !/channel|function|value|kanal|funktion|mode/i.test(piece)))
    unsettled.push({ line, text: piece, why: 'neither a channel nor a range' });
}

function isValue(number: number, last: Draft, rest: string): boolean {
  if (number === 0) return true;
  const before = last.ranges.at(-1);
  return before !== undefined
    ? number === before.to + 1 || number === 255
    : meaningOf(rest, 'Shutter1').sure && number > 100;
}

function begin(places: readonly number[], rest: string, line: number, drafts: Draft[], unsettled: Unsettled[]): void {
  const beyond = places.find((place) => place > 512);
  if (beyond !== undefined)
    return void unsettled.push({
      line,
      text: `${beyond} ${rest}`,
      why: `a lamp has at most 512 channels, and this says ${beyond}`,
    });
  if (drafts.some((draft) => draft.places.some((place) => places.includes(place))))
    return void unsettled.push({
      line,
      text: `${places[0]} ${rest}`,
      why: `channel ${places[0]} is there already; the first one is kept`,
    });
  const first = spansIn(rest)[0];
  const named = first ? rest.slice(0, first.at) : rest;
  const draft: Draft = {
    places,
    text: withoutEdges(named.replace(/\(?\d{1,5}\s{0,5}[-–]\s{0,5}\d{1,5}\s{0,5}%\)?/, ''), '', ':=,–-('),
    line,
    ranges: [],
  };
  drafts.push(draft);
  if (first) addRanges(rest.slice(first.at), line, draft);
}

/** Without white space and some signs at either end. */
function withoutEdges(text: string, before: string, after: string): string {
  const goes = (at: number, signs: string) => signs.includes(text[at]!) || /\s/.test(text[at]!);
  let from = 0;
  let to = text.length;
  while (from < to && goes(from, before)) from++;
  while (to > from && goes(to - 1, after)) to--;
  return text.slice(from, to);
}

function addRanges(text: string, line: number, draft: Draft): void {
  const spans = spansIn(text);
  spans.forEach((span, i) => {
    const said = text.slice(span.end, spans[i + 1]?.at ?? text.length);
    const words = withoutEdges(said, ':=,.)–-', said.includes('(') ? ',;/' : ',;/)');
    draft.ranges.push({ from: span.from, to: span.to, text: words, line });
  });
}

function spansIn(text: string): readonly { at: number; end: number; from: number; to: number }[] {
  const found = [...text.matchAll(SPAN)].map((match) => ({
    at: match.index,
    end: match.index + match[0].length,
    from: Number(match[1]),
    to: Number(match[2]),
  }));
  // “slow-fast 1-20 Hz” names a rate inside a range; a range that begins below the one before is no range.
  return found.filter((span, i) => i === 0 || span.from > found[i - 1]!.from);
}

const FINE = /\b(?:ultra|fine|fein|fin|fino|16[\s-]?bit|lsb|low byte|24[\s-]?bit)\b/gi;

/** Channels from drafts: fine and ultra-fine ones become further bytes of the coarse one before them. */
function joined(drafts: readonly Draft[], unsettled: Unsettled[]) {
  const channels: Channel[] = [];
  const owners: Draft[] = [];
  for (const draft of drafts.map(named).sort((a, b) => a.places[0]! - b.places[0]!)) {
    const bare = draft.text.replace(FINE, ' ').replace(/\s+/g, ' ').trim();
    const attribute = attributeNamed(bare === '' ? draft.text : bare, draft.ranges);
    const isFine = bare !== draft.text.replace(/\s+/g, ' ').trim() && draft.places.length === 1;
    const coarse = isFine ? coarseFor(channels, attribute?.attribute, bare) : undefined;
    if (coarse !== undefined) {
      const before = channels[coarse]!;
      channels[coarse] = { ...before, at: [...before.at, draft.places[0]!].slice(0, 3) };
      continue;
    }
    const ranges = draft.ranges.flatMap((range) =>
      rangeOf(range, attribute?.attribute ?? 'Reserved', draft, unsettled),
    );
    const plain = usualChannel(attribute?.attribute ?? 'Reserved', draft.places, ranges);
    if (!attribute)
      unsettled.push({
        line: draft.line,
        text: `${draft.places[0]} ${draft.text}`,
        why: 'this name is not known: choose what the channel does',
        channel: draft.places[0]!,
      });
    const known = attribute && attributeOf(attribute.attribute).name.toLowerCase() === draft.text.toLowerCase();
    channels.push(known || draft.text === '' ? plain : { ...plain, name: draft.text.slice(0, 80) });
    owners.push(draft);
  }
  return { channels, owners };
}

/** In tables that have the value before the words, all of a channel's values are followed by its name. */
function named(draft: Draft): Draft {
  const [first, ...others] = draft.ranges;
  if (draft.text !== '' || !first || others.length > 0 || first.from !== 0 || first.to !== 255) return draft;
  return { ...draft, text: first.text, ranges: [] };
}

function coarseFor(channels: readonly Channel[], attribute: string | undefined, bare: string): number | undefined {
  for (let i = channels.length - 1; i >= 0; i--) {
    const candidate = channels[i]!;
    if (candidate.at.length > 2) continue;
    if (bare === '' ? i === channels.length - 1 : candidate.attribute === attribute) return i;
  }
  return undefined;
}

function rangeOf(draft: RangeDraft, attribute: string, owner: Draft, unsettled: Unsettled[]): readonly Range[] {
  const channel = owner.places[0]!;
  const note = (why: string) =>
    unsettled.push({ line: draft.line, text: `${draft.from}-${draft.to} ${draft.text}`.trim(), why, channel });
  if (draft.from > 255 || draft.to > 255) {
    note('DMX values go from 0 to 255');
    return [];
  }
  const [from, to] = [Math.min(draft.from, draft.to), Math.max(draft.from, draft.to)];
  // “Tilt 0-255” says no more than that it is a channel, nor does “0-255: 0-270°”.
  const turns = attribute === 'Pan' || attribute === 'Tilt';
  if (from === 0 && to === 255 && (draft.text === '' || turns) && owner.ranges.length === 1) return [];
  const { sure, ...meaning }: Meaning = meaningOf(draft.text, attribute);
  if (!sure) note('kept with its name; choose what it does');
  return [{ from, to, ...(draft.text ? { name: draft.text.slice(0, 80) } : {}), ...meaning }];
}

/**
 * What is meant by a channel as a whole. A zoom may go from wide to narrow, a white from cold to warm. A shutter that only strobes is open where it is
 * said to be off, or to do nothing; one of which no more is said than that it strobes does so from 1 on.
 */
function meant(channel: Channel): Channel {
  const { attribute, ranges, name = '' } = channel;
  if ((attribute === 'Zoom' || attribute === 'CTC') && ranges.length === 0) {
    const { sure: _, ...said } = meaningOf(name, attribute);
    return said.low === undefined ? channel : { ...channel, ranges: [{ from: 0, to: 255, ...said }] };
  }
  if (attribute !== 'Shutter1') return channel;
  if (ranges.length === 0 && onlyStrobes(channel)) {
    const strobe = { from: 1, to: 255, does: 'strobe', low: 1, high: 20 } as const;
    return { ...channel, home: 0, ranges: [{ from: 0, to: 0, does: 'open' }, strobe] };
  }
  const does = (what: Range['does']) => ranges.find((range) => range.does === what);
  const [off, on] = [does('closed'), does('open')];
  if (off && on && !does('strobe') && onlyStrobes(channel)) {
    const turned = (range: Range): Range =>
      range === off
        ? { ...range, does: 'open' }
        : range === on
          ? { ...range, does: 'strobe', low: 1, high: 20 }
          : range;
    return { ...channel, home: off.from / 255, ranges: ranges.map(turned) };
  }
  if (on || !does('strobe')) return channel;
  const at = openOf(channel);
  const open = ranges.find((range) => range.does !== 'strobe' && at >= range.from && at <= range.to);
  if (!open) return channel;
  return {
    ...channel,
    home: at / 255,
    ranges: ranges.map((range) => (range === open ? { ...range, does: 'open' } : range)),
  };
}

/** Where nothing else dims a lamp, a shutter that has levels does, and a colour that is said to be off is dark. */
function dimming(channels: readonly Channel[]): readonly Channel[] {
  if (channels.some(({ attribute }) => attribute === 'Dimmer')) return channels;
  const levels = channels.find(
    ({ attribute, ranges }) => attribute === 'Shutter1' && ranges.some(({ does }) => does === 'level'),
  );
  const emits = channels.some(({ attribute }) => attribute.startsWith('ColorAdd_'));
  return channels.map((channel) => {
    if (channel === levels) return { ...channel, attribute: 'Dimmer', home: 0 };
    if (emits || levels || channel.attribute !== 'Color1') return channel;
    return {
      ...channel,
      ranges: channel.ranges.map((range) => (OFF.test(range.name ?? '') ? { ...range, does: 'closed' } : range)),
    };
  });
}

const OFF = /^(?:leds? )?(?:off|aus|black ?out|no light)$/i;

/** Numbers the slots of wheels in the order of their ranges, and gathers their colours and patterns. */
function wheelOf(channels: readonly Channel[], owners: readonly Draft[], unsettled: Unsettled[]) {
  const colours: Profile['colours'] = [];
  const gobos: Gobo[] = [];
  const numbered = channels.map((channel, i) => {
    const list = channel.attribute === 'Color1' ? 'colours' : channel.attribute === 'Gobo1' ? 'gobos' : undefined;
    if (!list) return channel;
    // The open place is the first, wherever it lies on the wheel.
    let slot = Number(channel.ranges.some(({ does }) => does === 'open'));
    const ranges = channel.ranges.map((range): Range => {
      if (range.does !== 'slot' && range.does !== 'open') return range;
      const place = range.does === 'open' ? 0 : slot++;
      const name = range.name ?? `${list === 'colours' ? 'Colour' : 'Pattern'} ${place}`;
      if (list === 'gobos')
        gobos[place] ??= { name, pattern: place === 0 ? 'open' : PATTERNS[1 + ((place - 1) % (PATTERNS.length - 1))]! };
      if (list === 'colours' && !colours[place]) {
        const found = slotColour(name);
        colours[place] = { name, ...found.colours };
        const owner = owners[i];
        if (!found.sure && owner)
          unsettled.push({
            line: owner.line,
            text: name,
            why: 'the colour of this slot is not known: white is taken',
            channel: owner.places[0]!,
          });
      }
      return { ...range, slot: place };
    });
    return { ...channel, ranges };
  });
  return { channels: numbered, colours: colours.slice(0, 64), gobos: gobos.slice(0, 64) };
}

/** Red, green and blue that come again and again are the cells of a bar. */
function inCells(channels: readonly Channel[]): readonly Channel[] {
  const count = (attribute: string) => channels.filter((channel) => channel.attribute === attribute).length;
  const cells = count('ColorAdd_R');
  if (cells < 2 || count('ColorAdd_G') !== cells || count('ColorAdd_B') !== cells) return channels;
  const seen = new Map<string, number>();
  return channels.map((channel) => {
    const many = count(channel.attribute) === cells && channel.attribute !== 'Reserved';
    if (!many) return channel;
    const cell = seen.get(channel.attribute) ?? 0;
    seen.set(channel.attribute, cell + 1);
    return { ...channel, cell };
  });
}

function turnsIn(text: string): Pick<Chart, 'panRange' | 'tiltRange'> {
  const degrees = (word: string) => {
    const found = new RegExp(`\\b${word}\\b[^\\n]{0,40}?(\\d{2,3})\\s*(?:°|deg)`, 'i').exec(text);
    return found ? Number(found[1]) : undefined;
  };
  const [panRange, tiltRange] = [degrees('pan'), degrees('tilt')];
  return {
    ...(panRange !== undefined && panRange <= 1080 ? { panRange } : {}),
    ...(tiltRange !== undefined && tiltRange <= 360 ? { tiltRange } : {}),
  };
}
