// What the list of all that is bound says.

export const BINDINGS = {
  title: 'All bindings',
  open: 'All bindings',
  find: 'Find a binding',
  hint: 'A key, a pad, or what it does',
  none: 'Nothing is bound that way.',
  columns: { trigger: 'Touch', how: 'How', does: 'Does', where: 'Where' },
  change: (trigger: string) => `Change ${trigger}`,
  clashes: (count: number) => `${count} ${count === 1 ? 'thing is' : 'things are'} bound twice.`,
  sorted: { asc: 'ascending', desc: 'descending' },
} as const;
