import { Button, SegmentedControl, Select, Slider, Tooltip } from '@mantine/core';
import { memo, useId, useState } from 'react';
import type { ChoicesOfLine, Decision } from '../../api/client';
import { Scrolling } from '../../ui/Scrolling';

interface HandProps {
  decisions: Decision[];
  /** the same by line: those of a shuffle are one thing */
  inHand: ChoicesOfLine[];
  onChoose: (key: string, value: number) => void;
  /** of these, the first that there is, or others by chance; everything else stays */
  onTogether: (keys: string[], byChance: boolean) => void;
  onAnother: () => void;
  onWorst: () => void;
  /** what "worst" means here */
  worst: string;
}

/** The spectator's hand: one control for each decision on this path. */
export const Hand = memo(function Hand({ decisions, inHand, onChoose, onTogether, onAnother, onWorst, worst }: HandProps) {
  const several = decisions.some((decision) => decision.person > 1);
  const byKey = new Map(decisions.map((decision) => [decision.key, decision]));
  return (
    <section className="hand panel" aria-label="The spectator’s hand">
      <Scrolling className="decisions" name="Choices">
        {decisions.length === 0 && <p className="none">No choice is left open: every run is the same.</p>}
        {inHand.map((line) => {
          const made = line.keys.flatMap((key) => byKey.get(key) ?? []);
          const each = made.map((decision) => <Choice key={decision.key} decision={decision} several={several} onChoose={onChoose} />);
          if (!line.together) return each;
          return (
            <Together key={`line ${line.line}`} line={line} whose={whose(made[0], several)} onTogether={onTogether}>
              {each}
            </Together>
          );
        })}
      </Scrolling>
      <div className="runs">
        <Tooltip label="A path at random (Alt A)">
          <Button variant="outline" onClick={onAnother}>
            Another spectator
          </Button>
        </Tooltip>
        <Tooltip label={`${worst} (Alt W)`}>
          <Button variant="outline" onClick={onWorst}>
            Worst case
          </Button>
        </Tooltip>
      </div>
    </section>
  );
});

/** Who decides, and whether anybody else learns it. */
function whose(decision: Decision | undefined, several: boolean): string {
  if (!decision) return '';
  if (decision.by === 'chance') return ', by chance';
  const who = several && decision.by === 'spectator' ? `, spectator ${decision.person}` : '';
  return decision.secret ? `${who}, secret` : who;
}

interface TogetherProps {
  line: ChoicesOfLine;
  whose: string;
  onTogether: HandProps['onTogether'];
  children: React.ReactNode;
}

/** Many choices of one line as one control, each of them on demand. */
function Together({ line, whose, onTogether, children }: TogetherProps) {
  const [open, setOpen] = useState(false);
  const label = useId();
  return (
    <div className={open ? 'choice together open' : 'choice together'} role="group" aria-labelledby={label}>
      <span id={label}>
        line {line.line}: {line.text}
        {whose}
      </span>
      <span className="sliding">
        <b aria-live="polite">{line.stands}</b>
        <Button.Group>
          <Button size="compact-sm" variant="default" onClick={() => onTogether(line.keys, true)}>
            Another
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => onTogether(line.keys, false)}>
            Plainest
          </Button>
          <Button size="compact-sm" variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Fold' : `All ${line.keys.length}`}
          </Button>
        </Button.Group>
      </span>
      {open && <div className="each">{children}</div>}
    </div>
  );
}

const FEW = 3;
const LONG_WORDS = 12;

/** A slider for numbers and positions, buttons for a few short options, a list for the rest. */
function Choice({ decision, several, onChoose }: { decision: Decision; several: boolean; onChoose: HandProps['onChoose'] }) {
  const label = useId();
  const { options, words, value, key } = decision;
  const index = options.indexOf(value);
  const run = options.every((option, i) => option === (options[0] ?? 0) + i);
  const data = options.map((option, i) => ({ value: String(option), label: words[i] ?? String(option) }));
  const longest = Math.max(...words.map((word) => word.length));
  const spoken = words[index] ?? String(value);
  return (
    <div className="choice">
      <span id={label}>
        line {decision.line}: {decision.label}
        {whose(decision, several)}
      </span>
      {options.length <= FEW && longest <= LONG_WORDS ? (
        <SegmentedControl aria-labelledby={label} size="xs" data={data} value={String(value)} onChange={(to) => onChoose(key, Number(to))} />
      ) : longest > LONG_WORDS || !run ? (
        <Select
          aria-labelledby={label}
          size="xs"
          w={190}
          data={data}
          value={String(value)}
          allowDeselect={false}
          searchable
          onChange={(to) => to !== null && onChoose(key, Number(to))}
        />
      ) : (
        <span className="sliding">
          <Slider
            aria-labelledby={label}
            thumbProps={{ 'aria-labelledby': label, 'aria-valuetext': spoken }}
            min={options[0] ?? 0}
            max={options[options.length - 1] ?? 0}
            value={value}
            onChange={(to) => onChoose(key, to)}
            label={null}
            size="sm"
            w={120}
          />
          <b className="figures">
            {spoken} <small>{spoken === String(value) ? `of ${options[0]} to ${options[options.length - 1]}` : `of ${options.length}`}</small>
          </b>
        </span>
      )}
    </div>
  );
}
