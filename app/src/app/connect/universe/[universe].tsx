import { useLocalSearchParams } from 'expo-router';
import { z } from 'zod';
import { UniversePlace } from '../../../features/connect/UniversePlace';
import { NotHere } from '../../../ui/NotHere';

const Universe = z.number().int().min(1).max(63999);

export default function OneUniverse() {
  const asked = Universe.safeParse(Number(useLocalSearchParams().universe));
  if (!asked.success) return <NotHere what="There is no such universe. Universes are numbered from 1 to 63999." />;
  return <UniversePlace key={asked.data} universe={asked.data} />;
}
