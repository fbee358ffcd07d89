import { SafetyPlace } from '../../features/safety/SafetyPlace';

export default function Flashes() {
  return <SafetyPlace />;
}
