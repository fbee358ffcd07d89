// The serial ports of this computer, as far as the system tells.

import { readdir } from 'node:fs/promises';
import { SerialPort } from 'serialport';
import type { SerialPlace } from '@hovlix/core/connect';

/** Once the system cannot list them, it is not asked again. */
let unlisted = false;

/** USB cables first; ports soldered to the board, which nobody has lamps on, are left out where the system tells. */
export async function serialPorts(): Promise<SerialPlace[]> {
  const listed = unlisted ? undefined : await SerialPort.list().catch(() => undefined);
  unlisted = listed === undefined;
  if (listed)
    return listed
      .filter(({ path, vendorId }) => vendorId !== undefined || !/\/ttyS\d+$/.test(path))
      .map((port) => {
        const { friendlyName } = port as { friendlyName?: string };
        return { path: port.path, name: friendlyName ?? port.manufacturer ?? 'USB cable', standIn: false };
      });
  // Linux without udev: cables are still there under their usual names.
  const names = await readdir('/dev').catch(() => []);
  return names
    .filter((name) => /^(ttyUSB|ttyACM)\d+$/.test(name))
    .sort()
    .map((name) => ({ path: `/dev/${name}`, name: 'USB cable', standIn: false }));
}
