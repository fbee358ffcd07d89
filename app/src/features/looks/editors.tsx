// The editors of looks and of steps, fetched together when the first of them opens.

import { fetched } from '../../ui/fetched';

const editors = () => import('./edit/editors');

export const EditPlace = fetched(async () => (await editors()).EditPlace);

export const StepPlace = fetched(async () => (await editors()).StepPlace);
