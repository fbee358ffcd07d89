import { useLocalSearchParams } from 'expo-router';
import { ChasePlace } from '../../../../features/looks/chase/ChasePlace';

export default function OneChase() {
  const { chase } = useLocalSearchParams();
  const id = typeof chase === 'string' ? chase : '';
  return <ChasePlace key={id} id={id} />;
}
