import { ShowsPlace } from '../../features/shows/ShowsPlace';

export default function Shows() {
  return <ShowsPlace />;
}
