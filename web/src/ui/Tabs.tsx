import { Tabs as MantineTabs } from '@mantine/core';
import type { ReactNode } from 'react';
import './tabs.css';

interface TabsProps<T extends string> {
  /** what the tabs are of */
  label: string;
  tabs: readonly { value: T; label: string; keys?: string }[];
  value: T;
  onChange: (to: T) => void;
  /** at the end of the row of tabs */
  beside?: ReactNode;
  className?: string;
  children: ReactNode;
}

/** One thing at a time: a row of tabs, gone through with the arrow keys, and what the chosen one shows. */
export function Tabs<T extends string>({ label, tabs, value, onChange, beside, className = '', children }: TabsProps<T>) {
  // Tabs refer to what they show by their keys, and such a reference has no spaces.
  const key = (of: T) => String(tabs.findIndex((one) => one.value === of));
  const choose = (to: string | null) => {
    const chosen = tabs[Number(to)];
    if (to !== null && chosen) onChange(chosen.value);
  };
  return (
    <MantineTabs unstyled value={key(value)} onChange={choose} className={`tabs ${className}`}>
      <div className="tab-row">
        <MantineTabs.List aria-label={label}>
          {tabs.map((one) => (
            <MantineTabs.Tab key={one.value} value={key(one.value)} title={one.keys}>
              {one.label}
            </MantineTabs.Tab>
          ))}
        </MantineTabs.List>
        {beside}
      </div>
      <MantineTabs.Panel value={key(value)} className="tab-panel" tabIndex={0}>
        {children}
      </MantineTabs.Panel>
    </MantineTabs>
  );
}
