// The editors of looks and of steps, fetched together when the first of them opens.

import { lazy } from 'react';

const editors = () => import('./edit/editors');

export const EditPlace = lazy(async () => ({ default: (await editors()).EditPlace }));

export const StepPlace = lazy(async () => ({ default: (await editors()).StepPlace }));
