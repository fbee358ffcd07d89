import { Link } from 'expo-router';
import { Column, Title, Words } from '../ui/pieces';

export default function NotFound() {
  return (
    <Column padding={24} gap={12}>
      <Title render="h1">There is nothing here</Title>
      <Words>The address leads nowhere in Hovlix.</Words>
      <Link href="/songs">
        <Words color="$doingText" fontWeight="600">
          To the songs
        </Words>
      </Link>
    </Column>
  );
}
