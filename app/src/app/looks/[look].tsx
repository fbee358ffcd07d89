import { useLocalSearchParams } from 'expo-router';
import { EditPlace } from '../../features/looks/editors';

export default function OneLook() {
  const { look } = useLocalSearchParams();
  const id = typeof look === 'string' ? look : 'new';
  return <EditPlace key={id} id={id} />;
}
