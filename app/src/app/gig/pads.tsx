import { PadsPlace } from '../../features/gig/pads/PadsPlace';

export default function Pads() {
  return <PadsPlace />;
}
