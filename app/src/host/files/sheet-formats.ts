// One piece for the bundler: both write tables.

import { scribe } from './scribe';

export * from '@hovlix/core/paper';
export * from '@hovlix/core/set';

/** What a printed page is told: the day as one writes it here, and who draws letters of other scripts. */
export const madeNow = () => ({ made: new Date().toLocaleDateString([], { dateStyle: 'medium' }), scribe });
