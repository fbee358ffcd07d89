import { useLocalSearchParams } from 'expo-router';
import { TypePlace } from '../../../features/rig/types/TypePlace';

export default function OneType() {
  const { type } = useLocalSearchParams();
  const id = typeof type === 'string' ? type : '';
  return <TypePlace key={id} id={id} />;
}
