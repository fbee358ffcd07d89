import { GigPlace } from '../../features/gig/GigPlace';

export default function Gig() {
  return <GigPlace />;
}
