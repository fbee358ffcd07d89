import { NotHere } from '../ui/NotHere';

export default function NotFound() {
  return <NotHere what="The address leads nowhere in Hovlix." />;
}
