// One control, fetched when it is first opened: two pages lead to it.

import { fetched } from '../../../ui/fetched';

export const ControlSheet = fetched(async () => (await import('./opened-control')).OpenedControl, {
  close: ({ onClose }) => onClose(),
});
