// What the list of roles says.

export const WORDS = {
  role: (part: string | number) => `Role ${part}`,
  looksMadeRoles:
    'Looks are made for roles, not for lamps: in another room, other lamps play them. The order counts for what runs over the lamps.',
  searchTheRoles: 'Search the roles',
  roleOrLamp: 'Role, or a lamp that plays it',
  noRoleMatches: 'No role matches.',
  noRoleSo: (list: string | number) => `${list}: in no role, so no look reaches them.`,
  newRole: 'New role',
  noLampsAssigned: 'No lamps assigned',
  name: 'Name',
  noLookUses: 'No look uses it yet.',
  it: (uses: string | number, part: string | number) => `${uses} ${part} it.`,
  order: 'Order',
  whoPlaysIt: 'Who plays it',
  number: (number: string | number) => `number ${number}`,
  mergeInto: 'Merge into',
  everyRigEvery: 'In every rig and every look.',
  belongsToNow: (role: string | number, kept: string | number) => `${role} belongs to ${kept} now.`,
  removeRole: 'Remove role',
  goneWhatSaid: (role: string | number, howMany: string | number) => `${role} is gone, and what ${howMany} said to it.`,
};
