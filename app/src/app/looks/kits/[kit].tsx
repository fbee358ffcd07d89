import { useLocalSearchParams } from 'expo-router';
import { KitPlace } from '../../../features/looks/kits/KitPlace';

export default function KitRoute() {
  const { kit } = useLocalSearchParams<{ kit: string }>();
  return <KitPlace key={kit} id={kit} />;
}
