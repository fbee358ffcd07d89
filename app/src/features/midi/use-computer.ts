// Whether the computer that conducts listens to MIDI, and this page on it does not.

import { useConnections, useLink } from '../../host/hovlix';

export function useComputerListens(): boolean {
  const own = useLink(({ conductor, device }) => conductor === 'server' && device === null);
  return useConnections((state) => state.connections?.midi?.on ?? false) && own;
}
