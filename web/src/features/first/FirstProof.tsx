import { Button } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { IconCheck } from '@tabler/icons-react';
import { useState } from 'react';
import type { Verdict } from '../../api/client';
import './first.css';

/** What the bench shows just now. */
export interface Seen {
  verdict: Verdict['verdict'] | undefined;
  /** the verdict is that of the text on the sheet */
  settled: boolean;
  /** moment of the table, and the last one */
  index: number;
  last: number;
  /** the worst case is on the table */
  worst: boolean;
}

interface Step {
  title: string;
  says: string;
  /** it has been done; absent: there is nothing to see, and one says so oneself */
  done?: (seen: Seen) => boolean;
}

const STEPS: Step[] = [
  {
    title: 'Read it',
    says: 'Each line is a sentence; slanted ones are done by the spectator. The verdict above has gone through every number they can name: the last card dealt is FORCE each time.',
  },
  {
    title: 'Step through it',
    says: 'Press Alt ← to go back a line on the table, and Alt → to go on. FORCE is the card in gold; in the margin stands where it is after each line.',
    done: ({ index, last }) => index < last,
  },
  {
    title: 'Spoil it',
    says: 'Let them name one number more: in the line “Spectator names a number …” write 50 instead of 49.',
    done: ({ verdict, settled }) => settled && verdict === 'refuted',
  },
  {
    title: 'See how it fails',
    says: 'Press Alt W. The shortest way in which it fails is played on the table; below the sheet stands for which numbers it still holds.',
    done: ({ worst }) => worst,
  },
  {
    title: 'Mend it',
    says: 'Take back what you wrote with Ctrl Z (Escape leaves the sheet, a click goes into it), or write the range that holds.',
    done: ({ verdict, settled }) => settled && verdict === 'proved',
  },
  {
    title: 'Take it along',
    says: 'Show, at the foot of the sheet, makes the cue sheet, the set-up and the reset of it, to print. This routine is yours: change it, or take it off the shelf.',
  },
];

/** The routine with which the guided first proof goes on; null: it is not on. */
export function useFirstProof() {
  return useLocalStorage<number | null>({ key: 'gp-first-proof', defaultValue: null });
}

/** Six steps beside the sheet, on a real routine: done as one does them, or passed by, or left. */
export function FirstProof({ seen, onLeave }: { seen: Seen; onLeave: () => void }) {
  const [at, setAt] = useState(0);
  const step = STEPS[at];
  if (step?.done?.(seen)) setAt(at + 1);
  if (!step) return null;
  const isLast = at === STEPS.length - 1;
  return (
    <aside className="first-proof" aria-label="A first proof">
      <ol aria-label="Steps">
        {STEPS.map((one, i) => (
          <li key={one.title} aria-current={i === at ? 'step' : undefined}>
            {i < at && <IconCheck size={13} aria-label="done" />}
            {one.title}
          </li>
        ))}
      </ol>
      <p aria-live="polite">{step.says}</p>
      <div>
        <Button size="compact-sm" variant={step.done ? 'default' : 'filled'} onClick={() => (isLast ? onLeave() : setAt(at + 1))}>
          {isLast ? 'Done' : step.done ? 'Pass by' : 'Next'}
        </Button>
        {!isLast && (
          <Button size="compact-sm" variant="subtle" color="gray" onClick={onLeave}>
            Leave
          </Button>
        )}
      </div>
    </aside>
  );
}
