// A small rig for the plan's tests.

import { Rig } from '@hovlix/core/rig';

export const testRig = (): Rig =>
  Rig.parse({
    id: 'rig',
    name: 'Rig',
    fixtures: [
      { id: 'a', number: 1, name: 'A', profile: 'p', mode: 'm', universe: 1, address: 1, mount: { x: 0, y: 0, z: 3 } },
    ],
    casting: [],
    shapes: [{ id: 's', kind: 'stage', name: 'Stage', x: 0, y: 2, width: 6, depth: 4 }],
  });
