import { SongsPlace } from '../../features/songs/SongsPlace';

export default function Songs() {
  return <SongsPlace />;
}
