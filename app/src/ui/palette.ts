import { useSession } from '../host/session';
import { DAY, NIGHT, TINTS_DAY, TINTS_NIGHT, type Palette } from './tokens';

/** The colours of the theme in use, for pictures that are not made of styled pieces. */
export function usePalette(): Palette {
  return useSession((session) => session.theme) === 'night' ? NIGHT : DAY;
}

export function useTints(): readonly string[] {
  return useSession((session) => session.theme) === 'night' ? TINTS_NIGHT : TINTS_DAY;
}

/**
 * The theme of what lies over the stage picture, which is dark by day too. Tamagui looks at a theme within a theme only
 * when it is drawn again: so it is, when the one around it changes.
 */
export function useStageTheme(): 'dark' {
  useSession((session) => session.theme);
  return 'dark';
}
