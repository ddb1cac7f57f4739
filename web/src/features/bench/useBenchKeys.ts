import { useHotkeys } from '@mantine/hooks';
import { useMemo } from 'react';
import type { StepKind } from '../../api/client';
import { VIEWS, type View } from '../variants/Variants';
import { useCommands, type Command } from '../palette/commands';

export interface BenchActions {
  another: () => void;
  worst: () => void;
  step: (by: number) => void;
  steps: () => void;
  versions: () => void;
  show: () => void;
  view: (view: View) => void;
  insert: (sentence: string) => void;
}

/** What can be done on the bench, by key and by name. */
export function useBenchKeys(kinds: StepKind[] | undefined, { another, worst, step, steps, versions, show, view, insert }: BenchActions) {
  const commands = useMemo<Command[]>(
    () => [
      { id: 'another', group: 'At the table', label: 'Another spectator', keys: 'Alt A', run: another },
      { id: 'worst', group: 'At the table', label: 'Worst case', keys: 'Alt W', run: worst },
      { id: 'forward', group: 'At the table', label: 'One step on', keys: 'Alt →', run: () => step(1) },
      { id: 'back', group: 'At the table', label: 'One step back', keys: 'Alt ←', run: () => step(-1) },
      { id: 'steps', group: 'On the sheet', label: 'All steps by family', keys: 'Alt S', run: steps },
      { id: 'show', group: 'On the sheet', label: 'Show: cues, set-up, reset, what it costs', run: show },
      { id: 'versions', group: 'On the sheet', label: 'Versions', keys: 'Alt V', run: versions },
      ...VIEWS.map((one) => ({ id: one.value, group: 'Beside the sheet', label: one.label, keys: one.keys, run: () => view(one.value) })),
      ...(kinds ?? []).map((kind) => ({
        id: `step ${kind.name}`,
        group: `Write: ${kind.family}`,
        label: kind.example,
        description: kind.summary,
        also: kind.also,
        run: () => insert(kind.example),
      })),
    ],
    [another, worst, step, steps, versions, show, view, insert, kinds],
  );
  useCommands('bench', commands);
  useHotkeys(
    [
      ['alt+ArrowRight', () => step(1)],
      ['alt+ArrowLeft', () => step(-1)],
      ['alt+A', another],
      ['alt+W', worst],
      ['alt+S', steps],
      ['alt+V', versions],
      ...VIEWS.map((one, i): [string, () => void] => [`alt+${i + 1}`, () => view(one.value)]),
    ],
    [],
    true,
  );
}
