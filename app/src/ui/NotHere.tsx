import { Link } from 'expo-router';
import { Column, Title, Words } from './pieces';

/** For an address that leads nowhere. */
export function NotHere({ what }: { readonly what: string }) {
  return (
    <Column padding={24} gap={12}>
      <Title render="h1">There is nothing here</Title>
      <Words>{what}</Words>
      <Link href="/songs">
        <Words color="$doingText" fontWeight="600">
          To the songs
        </Words>
      </Link>
    </Column>
  );
}
