// The keyboard: what each key does, and the list that ? opens.

import { useEffect, useState } from 'react';
import { usePathname } from 'expo-router';
import { View } from '@tamagui/core';
import { useHovlix } from '../../host/hovlix';
import { banksNow, goOn, padDown, padUp, togglePlay, toggleBlackout } from '../../host/gestures';
import { Button, Column, Figures, Row, Title, Words } from '../../ui/pieces';

const KEYS = [
  ['Space', 'play or pause the song'],
  ['T', 'tap the tempo'],
  ['B', 'blackout'],
  ['1 – 9', 'the pads of the bank'],
  ['N, P', 'next and previous look of the bank'],
  ['← →', 'walk the bars of a lead sheet'],
  ['Shift ← →', 'choose several bars'],
  ['Ctrl or ⌘ Z', 'undo'],
  ['Ctrl or ⌘ Shift Z', 'redo'],
  ['?', 'this list'],
] as const;

export function Shortcuts() {
  const [open, setOpen] = useState(false);
  const app = useHovlix();
  const path = usePathname();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (target?.closest('input, textarea, select, [contenteditable]')) return;
      const key = event.key.toLowerCase();
      if (key === 'z' && (event.metaKey || event.ctrlKey)) {
        event.preventDefault();
        // Each place undoes what was done there: outputs are not part of the show.
        const steps = path.startsWith('/connect') ? app.connections : app.document;
        // A look in the making is taken back step by step before the show is.
        if (path.startsWith('/looks/') && (event.shiftKey ? app.draft.redo() : app.draft.undo())) return;
        return event.shiftKey ? steps.redo() : steps.undo();
      }
      if (event.metaKey || event.ctrlKey || event.altKey) return;
      if (key === ' ' && !target?.closest('button, a, [role=button]')) {
        event.preventDefault();
        const songs = app.document.store.getState().history?.show.songs;
        return togglePlay(
          app,
          songs?.find((song) => path === `/songs/${song.id}`),
        );
      }
      if (key === 't' && !event.repeat) return app.conducting.act({ type: 'tap' });
      if (key === 'b' && !event.repeat) return toggleBlackout(app);
      if (/^[1-9]$/.test(key) && !event.repeat) {
        const { banks, bank } = banksNow(app);
        const pad = bank?.pads[Number(key) - 1];
        return pad && padDown(app, pad, banks);
      }
      if ((key === 'n' || key === 'p') && !event.repeat) return void goOn(app, key === 'n' ? 1 : -1);
      if (key === '?') return setOpen((is) => !is);
      if (key === 'escape') return setOpen(false);
    };
    const lift = (event: KeyboardEvent) => {
      const pad = /^[1-9]$/.test(event.key) ? banksNow(app).bank?.pads[Number(event.key) - 1] : undefined;
      if (pad) padUp(app, pad);
    };
    window.addEventListener('keydown', press);
    window.addEventListener('keyup', lift);
    return () => {
      window.removeEventListener('keydown', press);
      window.removeEventListener('keyup', lift);
    };
  }, [app, path]);

  if (!open) return null;
  return (
    <View position="absolute" right={12} top={12} zIndex={30} role="dialog" aria-label="Keys" maxWidth="94%">
      <Column
        backgroundColor="$raised"
        borderWidth={1}
        borderColor="$line"
        borderRadius={14}
        padding={20}
        gap={10}
        boxShadow="0 12px 40px rgba(0,0,0,0.4)"
      >
        <Row justifyContent="space-between" gap={24}>
          <Title fontSize={22}>Keys</Title>
          <Button onPress={() => setOpen(false)}>Close</Button>
        </Row>
        {KEYS.map(([key, does]) => (
          <Row key={key} gap={16}>
            <Figures width={150} color="$text">
              {key}
            </Figures>
            <Words>{does}</Words>
          </Row>
        ))}
      </Column>
    </View>
  );
}
