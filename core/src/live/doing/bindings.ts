// All that is bound, as one list: keys, pedals, MIDI, knobs, pads, hit kits, and the app's own keys.

import {
  GESTURES,
  hasGesture,
  keyName,
  sameSource,
  sourceWords,
  type Act,
  type Control,
  type Does,
  type Gesture,
  type Source,
} from '../../gig';
import { banksOf } from '../../light';
import type { Show } from '../../show';
import { actName, roleName } from './act-names';
import { turnName } from './turn-names';

export type Binding = {
  readonly id: string;
  /** What is touched: “key F7”, “note 36 (C2), channel 10, Floor board”, “pad 3”. */
  readonly trigger: string;
  /** How it is touched, where that counts. */
  readonly how: string;
  readonly does: string;
  /** The pedal or the bank it belongs to, else where it counts. */
  readonly where: string;
  /** What else listens to the same, and what comes of it; empty where nothing does. */
  readonly clash: string;
  /** What can be changed on its own page. */
  readonly control?: Control['id'];
};

/** A key that the app itself listens to. `code` is its place on the keyboard (UI Events). */
export type OwnKey = { readonly code: string; readonly key: string; readonly does: string };

const HOW: Readonly<Record<Gesture, string>> = {
  press: 'press',
  double: 'press twice',
  hold: 'hold',
  release: 'release',
};

const together = (show: Show, acts: readonly Act[]): string => acts.map((act) => actName(show, act)).join(' + ');

type Line = Binding & { readonly source: Source | null };

/** The app's own keys are known by what is printed on them, and give way to controls; two controls on one thing are both done. */
function clashOf(show: Show, { source, control }: Line): string {
  const isSame = (other: Source) => {
    if (control === undefined && other.by === 'key' && source?.by === 'key') return keyName(other) === keyName(source);
    return source !== null && sameSource(other, source);
  };
  const others = show.controls.filter((one) => one.id !== control && one.source && isSame(one.source));
  if (others.length === 0) return '';
  const names = others.map(({ name }) => `“${name}”`).join(', ');
  return control ? `${names} too: one press does both` : `taken by ${names}`;
}

function controlLines(show: Show): readonly Line[] {
  return show.controls.flatMap((control): readonly Line[] => {
    const { id, name, source } = control;
    const base = { trigger: sourceWords(source), control: id, source, clash: '' };
    const pedal = control.kind === 'switch' ? show.pedals.find((one) => one.id === control.pedal)?.name : undefined;
    const where = pedal ? `${pedal}: ${name}` : name;
    if (control.kind === 'fader')
      return [{ ...base, id: `${id}`, how: 'turn', does: turnName(show, control.turns), where }];
    const lines = (does: Does, key: string, place: string): readonly Line[] =>
      GESTURES.filter((gesture) => hasGesture(does, gesture)).map((gesture) => ({
        ...base,
        id: `${id} ${key} ${gesture}`,
        how: HOW[gesture],
        does: together(show, does[gesture]),
        where: place,
      }));
    const inBanks = (control.banks ?? []).flatMap(({ bank, does }) => {
      const of = banksOf(show).find((one) => one.id === bank)?.name ?? 'that is gone';
      return lines(does, bank, `${where}, in bank ${of}`);
    });
    const all = [...lines(control.does, '', where), ...inBanks];
    return all.length > 0 ? all : [{ ...base, id: `${id}`, how: '', does: 'does nothing yet', where }];
  });
}

/** @param keys of the pads of a bank, in their order. */
function padLines(show: Show, keys: readonly OwnKey[]): readonly Line[] {
  return banksOf(show).flatMap((bank) =>
    bank.pads.map(({ look, press, also = [] }, i): Line => {
      const key = keys[i];
      return {
        id: `${bank.id} ${i}`,
        trigger: key ? `pad ${i + 1}, key ${key.key}` : `pad ${i + 1}`,
        how: '',
        does: together(show, [{ act: 'look', look, press }, ...also]),
        where: `Bank ${bank.name}`,
        clash: '',
        source: key ? { by: 'key', code: key.code } : null,
      };
    }),
  );
}

function kitLines(show: Show): readonly Line[] {
  return show.kits.flatMap(({ id, name, channels }) =>
    channels.map(({ channel, role }): Line => ({
      id: `${id} ${channel} ${role}`,
      trigger: `notes, channel ${channel}`,
      how: '',
      does: `Hits of ${name} on ${roleName(show, role)}`,
      where: 'MIDI, unless a control takes the note',
      clash: '',
      source: null,
    })),
  );
}

/** @param pads keys of the pads of the chosen bank, in their order. @param own all other keys of the app. */
export function bindingsOf(show: Show, pads: readonly OwnKey[], own: readonly OwnKey[]): readonly Binding[] {
  const keys = own.map(({ code, key, does }): Line => ({
    id: `key ${code} ${key}`,
    trigger: `key ${key}`,
    how: '',
    does,
    where: 'The app',
    clash: '',
    source: { by: 'key', code },
  }));
  const lines = [...controlLines(show), ...padLines(show, pads), ...kitLines(show), ...keys];
  return lines.map((line) => {
    const { source: _, ...binding } = line;
    return { ...binding, clash: clashOf(show, line) };
  });
}
