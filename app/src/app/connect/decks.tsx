import { DecksPlace } from '../../features/connect/player/DecksPlace';

export default function Decks() {
  return <DecksPlace />;
}
