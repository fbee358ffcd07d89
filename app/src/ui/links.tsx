// Links that look like the buttons beside them, and the way back.

import { Link, type Href } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import { usePalette } from './palette';
import { Words } from './pieces';

type Props = {
  readonly href: Href;
  /** `primary` and `plain` stand on a ground, `words` are coloured, `quiet` are underlined. */
  readonly kind?: 'primary' | 'plain' | 'words' | 'quiet';
  readonly children: string;
};

const LINE = { alignSelf: 'flex-start', minHeight: 44, display: 'flex', alignItems: 'center' } as const;
const PILL = { ...LINE, paddingLeft: 18, paddingRight: 18, borderRadius: 22 } as const;

export function ButtonLink({ href, kind = 'plain', children }: Props) {
  const { doing, well, text } = usePalette();
  const ground = { primary: doing, plain: well }[kind as string];
  const words = { primary: '$onDoing', plain: '$text', words: '$doingText', quiet: '$text' } as const;
  return (
    <Link
      href={href}
      style={{ ...(ground ? PILL : LINE), backgroundColor: ground, color: text, textDecorationLine: 'none' }}
    >
      <Words fontWeight="600" color={words[kind]} textDecorationLine={kind === 'quiet' ? 'underline' : 'none'}>
        {children}
      </Words>
    </Link>
  );
}

const BACK = { width: 44, height: 44, flexShrink: 0, display: 'flex', alignItems: 'center', justifyContent: 'center' };

export function BackLink({ href, label }: { readonly href: Href; readonly label: string }) {
  const palette = usePalette();
  return (
    <Link href={href} aria-label={label} style={BACK as object}>
      <ChevronLeft size={24} color={palette.text} aria-hidden />
    </Link>
  );
}
