import { SettingsPlace } from '../../features/settings/SettingsPlace';

export default function Settings() {
  return <SettingsPlace />;
}
