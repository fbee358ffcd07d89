// One of many, in little room: a select without a line of its own for its name.

import { Select } from '../../../ui/inputs';

type Props<T extends string> = {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  readonly onChoose: (value: T) => void;
};

export function PickOne<T extends string>({ label, ...props }: Props<T>) {
  return <Select bare aria-label={label} {...props} />;
}
