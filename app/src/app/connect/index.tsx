import { ConnectPlace } from '../../features/connect/ConnectPlace';

export default function Connections() {
  return <ConnectPlace />;
}
