import { KitPlace } from '../features/kit/KitPlace';

export default function Kit() {
  return <KitPlace />;
}
