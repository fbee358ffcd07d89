// How the output is, kept up to date.

import { useQuery } from '@tanstack/react-query';
import { statusQuery } from '../../data/queries';
import { useLink, useLive } from '../../host/hovlix';
import { healthOf, type Health } from './model';

export function useHealth(): Health {
  const conductor = useLink((link) => link.conductor);
  const sending = useLive((live) => live.sending);
  const status = useQuery(statusQuery(conductor === 'server')).data;
  return healthOf(conductor, sending, status?.output ?? null);
}
