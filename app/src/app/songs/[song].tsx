import { useLocalSearchParams } from 'expo-router';
import { LeadSheet } from '../../features/songs/LeadSheet';

export default function Song() {
  const { song } = useLocalSearchParams<{ song: string }>();
  return <LeadSheet id={song} />;
}
