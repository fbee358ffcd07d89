// Tabs over a panel: the Tab key comes to the one that is open, arrows, Home and End go along them.

import { RovingFocusGroup } from '@tamagui/roving-focus';
import { chipLook, ChipName } from './Chip';

type Props<T extends string> = {
  readonly label: string;
  /** `marked` ones have something in them. */
  readonly tabs: readonly { readonly value: T; readonly name: string; readonly marked?: boolean }[];
  readonly value: T;
  readonly onChoose: (value: T) => void;
};

export function TabRow<T extends string>({ label, tabs, value, onChoose }: Props<T>) {
  return (
    <RovingFocusGroup role="tablist" aria-label={label} orientation="horizontal" loop flexDirection="row" gap={6}>
      {tabs.map((tab) => {
        const on = tab.value === value;
        return (
          <RovingFocusGroup.Item
            key={tab.value}
            {...chipLook(on, true)}
            role="tab"
            aria-selected={on}
            aria-label={tab.name}
            // Tab goes to the list, which hands it to the open one.
            tabIndex={on ? 0 : -1}
            active={on}
            onPress={() => onChoose(tab.value)}
          >
            <ChipName on={on} small>
              {`${tab.name}${tab.marked ? ' •' : ''}`}
            </ChipName>
          </RovingFocusGroup.Item>
        );
      })}
    </RovingFocusGroup>
  );
}
