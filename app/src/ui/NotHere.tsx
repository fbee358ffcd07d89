import { usePathname, type Href } from 'expo-router';
import { ButtonLink } from './links';
import { Column, Title, Words } from './pieces';
import { WAYS, WORDS } from './words';

/** Where to go from an address of each place that leads nowhere. */
const PLACES: Readonly<Record<string, readonly [Href, string]>> = {
  looks: ['/looks', WAYS.looks],
  rig: ['/rig', WAYS.rig],
  gig: ['/gig', WAYS.gig],
  connect: ['/connect', WAYS.connect],
  shows: ['/shows', WAYS.shows],
};

/** For an address that leads nowhere. */
export function NotHere({ what }: { readonly what: string }) {
  const place = usePathname().split('/')[1] ?? '';
  const [way, name] = (Object.hasOwn(PLACES, place) && PLACES[place]) || (['/songs', WAYS.songs] as const);
  return (
    <Column padding={24} gap={12}>
      <Title render="h1">{WORDS.nothingHere}</Title>
      <Words>{what}</Words>
      <ButtonLink href={way} kind="words">
        {name}
      </ButtonLink>
    </Column>
  );
}
