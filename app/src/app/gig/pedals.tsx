import { PedalsPlace } from '../../features/gig/pedal/PedalsPlace';

export default function Pedals() {
  return <PedalsPlace />;
}
