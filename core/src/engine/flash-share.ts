// What counts as a flash of the rig.

/** The share of the rig's light that must change for a flash. */
export const FLASH_SHARE = 0.1;
