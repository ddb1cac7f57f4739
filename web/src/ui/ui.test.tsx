// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { beforeAll, expect, test, vi } from 'vitest';
import { Tabs } from './Tabs';
import { Working } from './Working';

beforeAll(() => {
  vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener: vi.fn(), removeEventListener: vi.fn() }));
});

const TABS = [
  { value: 'cues', label: 'Cue sheet' },
  { value: 'reset', label: 'Reset', keys: 'Alt 2' },
] as const;

function Two() {
  const [tab, setTab] = useState<'cues' | 'reset'>('cues');
  return (
    <Tabs label="What to take" tabs={TABS} value={tab} onChange={setTab}>
      all about {tab}
    </Tabs>
  );
}

test('tabs are gone through with the arrow keys, and the one that is open is named by its tab', () => {
  render(<Two />, { wrapper: MantineProvider });
  expect(screen.getByRole('tabpanel', { name: 'Cue sheet' }).textContent).toBe('all about cues');
  screen.getByRole('tab', { name: 'Cue sheet' }).focus();
  fireEvent.keyDown(document.activeElement!, { key: 'ArrowRight', code: 'ArrowRight' });
  expect(screen.getByRole('tab', { name: 'Reset' }).getAttribute('aria-selected')).toBe('true');
  expect(screen.getByRole('tabpanel', { name: 'Reset' }).textContent).toBe('all about reset');
});

test('work that goes on can be stopped, and goes on again where it was', () => {
  const search = { error: null, isFetching: true, isOld: false, progress: '3 of 9', stop: vi.fn(), again: vi.fn() };
  const { rerender } = render(<Working search={search} doing="Proving…" />, { wrapper: MantineProvider });
  expect(screen.getByRole('status').textContent).toContain('Proving… 3 of 9');
  fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(search.stop).toHaveBeenCalled();
  rerender(<Working search={{ ...search, error: new Error('It was stopped.') }} doing="Proving…" />);
  expect(screen.getByRole('alert').textContent).toContain('It was stopped.');
  fireEvent.click(screen.getByRole('button', { name: 'Go on' }));
  expect(search.again).toHaveBeenCalled();
});
