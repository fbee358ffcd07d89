import { useLocalSearchParams } from 'expo-router';
import { KitPlace } from '../../../features/looks/kits/KitPlace';

export default function OneKit() {
  const { kit } = useLocalSearchParams();
  const id = typeof kit === 'string' ? kit : '';
  return <KitPlace key={id} id={id} />;
}
