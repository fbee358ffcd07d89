import { RigPlace } from '../../features/rig/RigPlace';

export default function Rig() {
  return <RigPlace />;
}
