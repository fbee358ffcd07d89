// The editors of looks and of steps, fetched together when the first of them opens.

import { fetched } from '../../ui/fetched';
import { Waiting } from '../../ui/Waiting';

const editors = () => import('./edit/editors');

export const EditPlace = fetched(async () => (await editors()).EditPlace, { until: Waiting });

export const StepPlace = fetched(async () => (await editors()).StepPlace, { until: Waiting });
