import { Button } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useEffect, useState } from 'react';
import type { BeatDone, Schemas } from '../../api/client';
import { Question } from './Question';
import { Stopwatch } from './stopwatch';

export type Level = 'sheet' | 'keywords' | 'memory';

interface PerformingProps {
  rehearsal: Schemas['Rehearsal'];
  level: Level;
  /** what was done so far, after every beat */
  write: (done: BeatDone[]) => void;
  over: (done: BeatDone[]) => void;
  leave: () => void;
}

interface Ask {
  known: string;
  asks: string;
  answer: string;
  options: string[];
  rule: string;
}

/** Only what a performer sees and hears; whatever is needed from the head is asked for before one goes on. */
export function Performing({ rehearsal, level, write, over, leave }: PerformingProps) {
  const { beats } = rehearsal;
  const [at, setAt] = useState(0);
  const [asked, setAsked] = useState(0);
  const [paused, setPaused] = useState(false);
  const [done, setDone] = useState<BeatDone[]>([]);
  const [watch] = useState(() => new Stopwatch());
  const beat = beats[at];
  useEffect(() => {
    watch.restart();
  }, [watch, at, asked]);
  const on = () => {
    if (!beat || asks[asked] || paused) return;
    const next = [...done, { line: beat.line, seconds: watch.seconds, asked: '', right: null, answer: '' }];
    setDone(next);
    setAsked(0);
    if (at + 1 === beats.length) over(next);
    else {
      write(next);
      setAt(at + 1);
    }
  };
  const pause = () => {
    if (paused) watch.goOn();
    else watch.pause();
    setPaused(!paused);
  };
  const asks: Ask[] = beat
    ? [
        ...(level === 'memory' && beat.may_come.length > 1
          ? [{ known: '', asks: 'What comes next?', answer: beat.action, options: beat.may_come, rule: `line ${beat.line}` }]
          : []),
        ...beat.asks.map((one) => ({ known: '', asks: one.asks, answer: one.answer, options: one.options, rule: `${one.known.join(', ')}: ${one.rule}` })),
      ]
    : [];
  const now = asks[asked];
  useHotkeys([
    ['space', on],
    ['ArrowRight', on],
    ['Escape', () => !now && pause()],
  ]);
  if (!beat) return null;
  // What was heard stays in the ear and what was seen in view, the last first.
  const before = beats.slice(0, at).flatMap((one) => one.heard);
  const view = beats[at - 1]?.seen ?? [];
  return (
    <div className="performing">
      <p className="how-far figures">
        {at + 1} of {beats.length}{' '}
        <Button size="compact-xs" variant="subtle" color="gray" onClick={leave}>
          Stop here
        </Button>
      </p>
      <dl className="senses">
        <dt>You heard</dt>
        <dd>{before.length ? before.slice(-4).join(' · ') : 'nothing yet'}</dd>
        <dt>In view</dt>
        <dd>{view.length ? view.join(' · ') : 'backs alone'}</dd>
      </dl>
      {paused ? (
        <div className="question">
          <p>Paused. The clock stands still.</p>
          <Button onClick={pause} autoFocus>
            Go on
          </Button>
        </div>
      ) : now ? (
        <Question
          key={`${at} ${asked}`}
          {...now}
          answered={(right, seconds, typed) => {
            const next = [...done, { line: beat.line, seconds, asked: now.asks, right, answer: typed.slice(0, 200) }];
            setDone(next);
            write(next);
          }}
          next={() => setAsked(asked + 1)}
        />
      ) : (
        <div className="beat" aria-live="polite">
          <p className={`who ${beat.spectator ? 'theirs' : ''}`}>{beat.spectator ? 'They' : 'You'}</p>
          {beat.says.map((words) => (
            <p key={words} className="says">
              “{words}”
            </p>
          ))}
          {level !== 'memory' && <p className="action">{level === 'sheet' ? beat.action : beat.keyword}</p>}
          {level === 'memory' && <p className="action">{beat.action}</p>}
          {beat.heard.length > 0 && <p className="heard">You hear: {beat.heard.join(', ')}</p>}
          <p className="reckoned figures">about {Math.round(beat.seconds)} s</p>
          <Button key={at} onClick={on} autoFocus>
            Done
          </Button>
          <p className="keys">Space · Esc pauses</p>
        </div>
      )}
    </div>
  );
}
