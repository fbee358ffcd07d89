import { LogPlace } from '../../features/gig/stage/LogPlace';

export default function Log() {
  return <LogPlace />;
}
