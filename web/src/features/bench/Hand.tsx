import { Button, Slider, Tooltip } from '@mantine/core';
import { useId } from 'react';
import type { Decision } from '../../api/client';

interface HandProps {
  decisions: Decision[];
  onChoose: (key: string, value: number) => void;
  onAnother: () => void;
  onWorst: () => void;
  /** what "worst" means here */
  worst: string;
}

/** The spectator's hand: one control for each decision on this path. */
export function Hand({ decisions, onChoose, onAnother, onWorst, worst }: HandProps) {
  return (
    <section className="hand panel" aria-label="The spectator’s hand">
      <div className="decisions">
        {decisions.length === 0 && <p className="none">No choice is left open: every run is the same.</p>}
        {decisions.map((decision) => (
          <Choice key={decision.key} decision={decision} onChoose={onChoose} />
        ))}
      </div>
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
}

function Choice({ decision, onChoose }: { decision: Decision; onChoose: HandProps['onChoose'] }) {
  const label = useId();
  const { options, value, key } = decision;
  const first = options[0] ?? 0;
  const last = options[options.length - 1] ?? 0;
  return (
    <div className="choice">
      <span id={label}>
        line {decision.line}: {decision.label}
        {decision.secret ? ', secret' : ''}
      </span>
      <Slider
        aria-labelledby={label}
        thumbProps={{ 'aria-labelledby': label }}
        min={first}
        max={last}
        value={value}
        onChange={(to) => onChoose(key, to)}
        label={null}
        size="sm"
        w={150}
        disabled={options.length < 2}
      />
      <b className="figures">
        {value} <small>of {options.length === 1 ? 'one' : `${first} to ${last}`}</small>
      </b>
    </div>
  );
}
