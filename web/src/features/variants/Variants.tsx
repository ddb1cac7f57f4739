import { BreaksPanel } from './BreaksPanel';
import { WhenPanel } from './WhenPanel';
import { WhyPanel } from './WhyPanel';
import { WouldPanel } from './WouldPanel';
import type { PanelProps } from './parts';
import './variants.css';

export type View = 'table' | 'why' | 'when' | 'would' | 'breaks';

export const VIEWS: { view: View; label: string; keys: string }[] = [
  { view: 'table', label: 'On the table', keys: 'Alt 1' },
  { view: 'why', label: 'Why', keys: 'Alt 2' },
  { view: 'when', label: 'When', keys: 'Alt 3' },
  { view: 'would', label: 'What would', keys: 'Alt 4' },
  { view: 'breaks', label: 'What breaks', keys: 'Alt 5' },
];

/** What stands beside the sheet: the table, or one of four questions about the routine. */
export function Views({ view, onView }: { view: View; onView: (view: View) => void }) {
  const step = (by: number) => {
    const at = VIEWS.findIndex((one) => one.view === view);
    const next = VIEWS[(at + by + VIEWS.length) % VIEWS.length];
    if (next) onView(next.view);
  };
  return (
    <div
      className="views"
      role="tablist"
      aria-label="Beside the sheet"
      onKeyDown={(event) => {
        if (event.altKey) return;
        if (event.key === 'ArrowRight') step(1);
        if (event.key === 'ArrowLeft') step(-1);
      }}
    >
      {VIEWS.map((one) => (
        <button
          key={one.view}
          type="button"
          role="tab"
          aria-selected={one.view === view}
          tabIndex={one.view === view ? 0 : -1}
          title={one.keys}
          onClick={() => onView(one.view)}
        >
          {one.label}
        </button>
      ))}
    </div>
  );
}

export const VIEW_KEYS: View[] = VIEWS.map((one) => one.view);

const TITLES = {
  why: 'Why it works',
  when: 'When it works',
  would: 'What would work',
  breaks: 'What breaks it',
};

export function Variants({ view, ...props }: PanelProps & { view: Exclude<View, 'table'> }) {
  return (
    <section className="panel variants" role="tabpanel" tabIndex={0} aria-label={TITLES[view]}>
      <h2>{TITLES[view]}</h2>
      {view === 'why' && <WhyPanel {...props} />}
      {view === 'when' && <WhenPanel {...props} />}
      {view === 'would' && <WouldPanel {...props} />}
      {view === 'breaks' && <BreaksPanel {...props} />}
    </section>
  );
}
