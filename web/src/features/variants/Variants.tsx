import { BreaksPanel } from './BreaksPanel';
import { WhenPanel } from './WhenPanel';
import { WhyPanel } from './WhyPanel';
import { WouldPanel } from './WouldPanel';
import type { PanelProps } from './parts';
import './variants.css';

export type View = 'table' | 'why' | 'when' | 'would' | 'breaks';

/** What stands beside the sheet: the table, or one of four questions about the routine. */
export const VIEWS: { value: View; label: string; keys: string }[] = [
  { value: 'table', label: 'On the table', keys: 'Alt 1' },
  { value: 'why', label: 'Why', keys: 'Alt 2' },
  { value: 'when', label: 'When', keys: 'Alt 3' },
  { value: 'would', label: 'What would', keys: 'Alt 4' },
  { value: 'breaks', label: 'What breaks', keys: 'Alt 5' },
];

const TITLES = {
  why: 'Why it works',
  when: 'When it works',
  would: 'What would work',
  breaks: 'What breaks it',
};

export function Variants({ view, ...props }: PanelProps & { view: Exclude<View, 'table'> }) {
  return (
    <section className="panel variants" tabIndex={0} aria-label={TITLES[view]}>
      <h2>{TITLES[view]}</h2>
      {view === 'why' && <WhyPanel {...props} />}
      {view === 'when' && <WhenPanel {...props} />}
      {view === 'would' && <WouldPanel {...props} />}
      {view === 'breaks' && <BreaksPanel {...props} />}
    </section>
  );
}
