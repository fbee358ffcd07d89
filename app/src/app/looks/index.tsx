import { LooksPlace } from '../../features/looks/LooksPlace';

export default function Looks() {
  return <LooksPlace />;
}
