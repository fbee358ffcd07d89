// What a foot did just now, in words, for as long as it takes to read them.

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { useHovlix } from '../../../host/hovlix';
import { WORDS } from './words';

const READ_MS = 1100;

export function useHappened(): string | null {
  const app = useHovlix();
  const happened = useStore(app.controls.store, (state) => state.happened);
  const [over, setOver] = useState(happened);
  useEffect(() => {
    if (!happened) return;
    const timer = setTimeout(() => setOver(happened), READ_MS);
    return () => clearTimeout(timer);
  }, [happened]);
  return happened && happened !== over ? happened.words || WORDS.nothingToDo : null;
}
