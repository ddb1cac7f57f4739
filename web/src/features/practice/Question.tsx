import { Button, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useEffect, useRef, useState } from 'react';
import { isRight } from './ago';
import { Stopwatch } from './stopwatch';

interface QuestionProps {
  known: string;
  asks: string;
  answer: string;
  /** to choose from by number; none where it is typed */
  options: string[];
  rule: string;
  /** with what was answered, how long it took in seconds, and whether it was right */
  answered: (right: boolean, seconds: number, typed: string) => void;
  /** the answer was seen: on to what comes next */
  next: () => void;
}

/** One question, answered by key: a number for one of several, or typed; then what is right, and why. */
export function Question({ known, asks, answer, options, rule, answered, next }: QuestionProps) {
  const [typed, setTyped] = useState('');
  const [told, setTold] = useState<boolean | null>(null);
  const [paused, setPaused] = useState(false);
  const [watch] = useState(() => new Stopwatch());
  const field = useRef<HTMLInputElement>(null);
  const on = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    watch.restart();
    field.current?.focus();
  }, [watch]);
  useEffect(() => {
    if (told !== null) on.current?.focus();
  }, [told]);
  const give = (words: string) => {
    if (told !== null || paused || words.trim() === '') return;
    const right = options.length ? words === answer : isRight(words, answer);
    setTyped(words);
    setTold(right);
    answered(right, watch.seconds, words);
  };
  const pause = () => {
    if (told !== null) return;
    if (paused) watch.goOn();
    else watch.pause();
    setPaused(!paused);
  };
  useHotkeys([...options.map((one, at): [string, () => void] => [String(at + 1), () => give(one)]), ['Escape', pause]], []);
  if (paused)
    return (
      <div className="question">
        <p>Paused. The clock stands still.</p>
        <Button onClick={pause} autoFocus>
          Go on
        </Button>
      </div>
    );
  return (
    <div className="question" aria-live="polite">
      {known && <p className="known">{known}</p>}
      <p className="asks" id="asks">
        {asks}
      </p>
      {options.length > 0 ? (
        <ol className="options" aria-labelledby="asks">
          {options.map((one, at) => (
            <li key={one}>
              <button
                type="button"
                disabled={told !== null}
                className={told !== null && one === answer ? 'right' : told === false && one === typed ? 'wrong' : ''}
                onClick={() => give(one)}
              >
                <kbd className="key">{at + 1}</kbd> {one}
                {told !== null && one === answer && ' ✓'}
                {told === false && one === typed && ' ✕'}
              </button>
            </li>
          ))}
        </ol>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            give(typed);
          }}
        >
          <TextInput
            ref={field}
            size="xl"
            aria-labelledby="asks"
            autoComplete="off"
            value={typed}
            readOnly={told !== null}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
        </form>
      )}
      {told !== null && (
        <div className={`told ${told ? 'right' : 'wrong'}`} role="status">
          <p>
            <strong>{told ? '✓ Right.' : `✕ It is ${answer}.`}</strong> {rule}
          </p>
          <Button ref={on} onClick={next}>
            Go on
          </Button>
        </div>
      )}
      <p className="keys">{told === null ? (options.length ? `1 to ${options.length} · Esc pauses` : 'Enter · Esc pauses') : 'Enter'}</p>
    </div>
  );
}
