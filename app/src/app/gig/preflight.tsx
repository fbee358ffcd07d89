import { PreflightPlace } from '../../features/gig/stage/PreflightPlace';

export default function Preflight() {
  return <PreflightPlace />;
}
