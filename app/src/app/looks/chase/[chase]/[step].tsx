import { useLocalSearchParams } from 'expo-router';
import { StepPlace } from '../../../../features/looks/editors';

export default function OneStep() {
  const { chase, step } = useLocalSearchParams();
  const [of, id] = [chase, step].map((one) => (typeof one === 'string' ? one : ''));
  return <StepPlace key={`${of}/${id}`} chase={of!} step={id!} />;
}
