// The keyboard: what each key does, and the list that ? opens.

import { useEffect, useRef, useState } from 'react';
import { usePathname } from 'expo-router';
import type { Pad } from '@hovlix/core/light';
import { useHovlix } from '../../host/hovlix';
import { doAct, pressPad } from '../../host/controls/act';
import { whenOf } from '../../host/conduct/local-clock';
import { PAD_KEYS, banksNow, goOn, padUp, tapTempo, togglePlay, toggleBlackout } from '../../host/conduct/gestures';
import { useSession } from '../../host/session';
import { fetched } from '../../ui/fetched';
import { keyOf, signOf } from '../../ui/key-of';
import { useSteps } from './Steps';

const KeyList = fetched(async () => (await import('./key-list')).KeyList, { close: ({ onClose }) => onClose() });

export function Shortcuts() {
  const [open, setOpen] = useState(false);
  const app = useHovlix();
  const path = usePathname();
  const now = useSteps();
  const steps = useRef(now);
  useEffect(() => {
    steps.current = now;
  });
  /** Pads that keys hold down, by the key's place: the bank may change while one is held. */
  const held = useRef(new Map<string, Pad>());
  useEffect(() => {
    const taken = new Set<string>();
    const press = (event: KeyboardEvent) => {
      const learns = app.controls.store.getState().learns !== null;
      if (learns && event.key === 'Escape') return app.controls.learn(null);
      if (isTyped(event) && !learns) return;
      if (isOfAControl(event)) return ours(event);
      // Held down, Enter presses once: a button that closes something would hand the rest to whatever has the focus then.
      if (event.key === 'Enter' && event.repeat) return ours(event);
      // Locked, the screen listens to pedals alone; its own button is worked with a finger, or with Tab and Space.
      if (useSession.getState().locked) return isOfTheLock(event) ? undefined : ours(event);
      if (useSession.getState().keyTakers.some((taker) => taker(event))) return ours(event);
      const key = keyOf(event);
      if (key === 'z' && (event.metaKey || event.ctrlKey)) {
        ours(event);
        return event.shiftKey ? steps.current.doAgain() : steps.current.takeBack();
      }
      if (event.metaKey || event.ctrlKey || event.altKey) return;
      if (key === ' ') {
        ours(event);
        if (event.repeat) return;
        const songs = app.document.store.getState().show?.songs;
        return togglePlay(
          app,
          songs?.find((song) => path === `/songs/${song.id}`),
        );
      }
      if (key === '?') return setOpen((is) => !is);
      if (key === 'Escape') return setOpen(false);
      if (event.repeat) return;
      if (key === 't') return tapTempo(app, event);
      if (key === 'b') return toggleBlackout(app);
      if (key === 'm') return void doAct(app, { act: 'freeze', to: 'toggle' });
      if (PAD_KEYS.includes(key)) {
        const { banks, bank } = banksNow(app);
        const pad = bank?.pads[PAD_KEYS.indexOf(key)];
        if (!pad) return;
        held.current.set(event.code, pad);
        return pressPad(app, pad, banks);
      }
      if (key === 'n' || key === 'p') goOn(app, key === 'n' ? 1 : -1);
      if (key === 'g') doAct(app, { act: event.shiftKey ? 'entry' : 'stop', way: 'next' });
      if (key === 'h') doAct(app, { act: event.shiftKey ? 'entry' : 'stop', way: 'previous' });
    };
    /** Keys that are bound to a pedal or a control are theirs, also while one is held and repeats. */
    const isOfAControl = (event: KeyboardEvent) => {
      const { code, repeat, ctrlKey, metaKey } = event;
      if (repeat) return taken.has(code);
      if ((ctrlKey || metaKey) && !/^(Control|Meta)/.test(code)) return false;
      const source = { by: 'key', code: code || 'Unidentified', ...signOf(event) } as const;
      const took = app.controls.key(source, true, whenOf(event));
      if (took) taken.add(code);
      return took;
    };
    const lift = (event: KeyboardEvent) => {
      taken.delete(event.code);
      if (app.controls.key({ by: 'key', code: event.code || 'Unidentified' }, false, whenOf(event))) return ours(event);
      // A button that has the focus would take the end of Space for a click.
      if (event.key === ' ' && !isTyped(event)) ours(event);
      const pad = held.current.get(event.code);
      held.current.delete(event.code);
      if (pad) padUp(app, pad);
    };
    /** Keys that come up while the window is elsewhere are never told: what they held is let go now. */
    const leave = () => {
      taken.clear();
      app.controls.leave();
      for (const pad of held.current.values()) padUp(app, pad);
      held.current.clear();
    };
    window.addEventListener('keydown', press, true);
    window.addEventListener('keyup', lift, true);
    window.addEventListener('blur', leave);
    window.addEventListener('click', forget);
    return () => {
      window.removeEventListener('keydown', press, true);
      window.removeEventListener('keyup', lift, true);
      window.removeEventListener('blur', leave);
      window.removeEventListener('click', forget);
    };
  }, [app, path]);

  if (!open) return null;
  return <KeyList onClose={() => setOpen(false)} />;
}

/** Keys with which somebody without a mouse unlocks. */
const isOfTheLock = ({ key, target }: KeyboardEvent): boolean =>
  key === 'Tab' || (target instanceof Element && target.closest('[data-testid=lock]') !== null);

/** The key is taken: whatever was clicked before does not get it. */
function ours(event: KeyboardEvent): void {
  event.preventDefault();
  event.stopPropagation();
}

/** What was pressed with a finger or a mouse does not keep the keys: arrows, Space and letters are the app's. */
function forget({ detail }: MouseEvent): void {
  const focused = window.document.activeElement;
  if (detail > 0 && focused instanceof HTMLElement && !isField(focused)) focused.blur();
}

/** Whether a key is meant for a field in which one types. Faders and ticks are none: their keys are the arrows. */
function isTyped({ target }: KeyboardEvent): boolean {
  return target instanceof Element && isField(target);
}

function isField(element: Element): boolean {
  const field = element.closest('input, textarea, select, [contenteditable]');
  return field !== null && !/^(button|checkbox|radio|range|file)$/.test(field.getAttribute('type') ?? 'text');
}
