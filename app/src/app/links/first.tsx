import { FirstLamp } from '../../features/links/FirstLamp';

export default function First() {
  return <FirstLamp />;
}
