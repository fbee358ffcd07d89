import { Link, usePathname, type Href } from 'expo-router';
import { Column, Title, Words } from './pieces';

/** Where to go from an address of each place that leads nowhere. */
const WAYS: Readonly<Record<string, readonly [Href, string]>> = {
  looks: ['/looks', 'To the looks'],
  rig: ['/rig', 'To the rig'],
  gig: ['/gig', 'To the gig'],
  connect: ['/connect', 'To Connect'],
  shows: ['/shows', 'To the shows'],
};

/** For an address that leads nowhere. */
export function NotHere({ what }: { readonly what: string }) {
  const place = usePathname().split('/')[1] ?? '';
  const [way, name] = (Object.hasOwn(WAYS, place) && WAYS[place]) || (['/songs', 'To the songs'] as const);
  return (
    <Column padding={24} gap={12}>
      <Title render="h1">There is nothing here</Title>
      <Words>{what}</Words>
      <Link href={way} style={{ minHeight: 44, display: 'flex', alignItems: 'center', textDecorationLine: 'none' }}>
        <Words color="$doingText" fontWeight="600">
          {name}
        </Words>
      </Link>
    </Column>
  );
}
