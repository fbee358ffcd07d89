import { FootPlace } from '../../features/gig/stage/FootPlace';

export default function Foot() {
  return <FootPlace />;
}
