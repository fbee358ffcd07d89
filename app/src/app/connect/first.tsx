import { FirstLamp } from '../../features/connect/FirstLamp';

export default function First() {
  return <FirstLamp />;
}
