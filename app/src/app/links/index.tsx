import { LinksPlace } from '../../features/links/LinksPlace';

export default function Links() {
  return <LinksPlace />;
}
