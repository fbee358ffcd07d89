import { KitsPlace } from '../../../features/looks/kits/KitsPlace';

export default function Kits() {
  return <KitsPlace />;
}
