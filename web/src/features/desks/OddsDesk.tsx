import { Button, SegmentedControl, Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { routinesQuery } from '../../api/queries';
import { habitOf, habitText, withHabit, type Habit } from './habits';
import type { DeskProps } from './DesksPage';
import { Count, DeskFrame, DeskTable, Parts, Picture, Rows, Told, Words, useToBench } from './parts';
import { useDesk } from './useDesk';

export function OddsDesk({ opening, title, about }: DeskProps<'odds'>) {
  const desk = useDesk('odds', opening);
  const { asks, set, answer } = desk;
  const [search, setSearch] = useSearchParams();
  const { data: routines = [] } = useQuery(routinesQuery());
  const id = Number(search.get('shelf'));
  const chosen = routines.find((routine) => routine.id === id && routine.text === asks.routine);
  const toBench = useToBench();
  const choose = (value: string | null) => {
    const routine = routines.find((one) => String(one.id) === value);
    setSearch({ asks: JSON.stringify(routine ? { routine: routine.text, habits: [] } : {}), ...(routine ? { shelf: String(routine.id) } : {}) });
  };
  const habits = asks.habits ?? [];
  const form = (
    <>
      <Select
        size="xs"
        label="Routine"
        searchable
        data={[{ value: '', label: 'A worked example: Halfway Buoy' }, ...routines.map((routine) => ({ value: String(routine.id), label: routine.title }))]}
        value={chosen ? String(chosen.id) : ''}
        onChange={choose}
      />
      <details>
        <summary>Its text</summary>
        <Rows
          label="Text"
          rows={8}
          value={(asks.routine ?? '').split('\n')}
          onValue={(rows) => set({ routine: rows.join('\n') })}
          error={desk.troubleOf('routine')}
        />
      </details>
      {desk.troubleOf('routine') && <p className="trouble">{desk.troubleOf('routine')}</p>}
      {(answer?.choices ?? []).map((choice) => (
        <HabitFields
          key={choice.name}
          name={choice.name}
          line={choice.line}
          low={choice.low}
          high={choice.high}
          habit={habitOf(habits, choice.name)}
          onHabit={(habit) => set({ habits: withHabit(habits, choice.name, habit) })}
        />
      ))}
      {desk.troubleOf('habits') && <p className="trouble">{desk.troubleOf('habits')}</p>}
      <SegmentedControl
        aria-label="Every other choice"
        size="xs"
        fullWidth
        data={[
          { value: 'evenly', label: 'others equally often' },
          { value: 'open', label: 'others left open' },
        ]}
        value={asks.rest}
        onChange={(rest) => set({ rest })}
      />
      <Rows
        label="Numbers to ask for as well"
        placeholder="size of hand"
        rows={1}
        value={asks.numbers ?? []}
        onValue={(numbers) => set({ numbers })}
        error={desk.troubleOf('numbers')}
      />
      <Count
        label="A limit is safe if it is kept"
        description="times in 100"
        value={asks.sure}
        onValue={(sure) => set({ sure })}
        error={desk.troubleOf('sure')}
      />
    </>
  );
  return (
    <DeskFrame desk={desk} title={title} about={about} form={form}>
      {answer && (
        <>
          <Told tone={answer.samples === null ? 'sure' : 'plain'}>
            {answer.samples === null ? (
              <>{answer.says}</>
            ) : (
              <>
                {answer.says}{' '}
                <Button size="compact-xs" variant="default" onClick={() => desk.longer({ steps: 100_000_000, samples: 4000 })}>
                  Reckon exactly
                </Button>
              </>
            )}
            {answer.assumes.length > 0 && <> Taken: {answer.assumes.join('; ')}.</>}
          </Told>
          <Picture desk={desk} name="How often" />
          <Parts
            parts={{
              ...(answer.limits.length
                ? {
                    Limits: (
                      <DeskTable
                        name="Limits"
                        head={['Number', 'Limit', 'Broken', `Safe ${asks.sure} times in 100`, '']}
                        rows={answer.limits.map((limit) => [
                          `${limit.name}, line ${limit.line}`,
                          `${limit.low} to ${limit.high}`,
                          limit.broken_text,
                          `${limit.safe_low} to ${limit.safe_high} (kept ${limit.safe_text}). ${limit.works}`,
                          limit.text === asks.routine ? (
                            'as it is'
                          ) : chosen ? (
                            <Button size="compact-xs" variant="default" onClick={() => toBench(chosen.id, limit.text)}>
                              Write it into {chosen.title}
                            </Button>
                          ) : (
                            <Button size="compact-xs" variant="default" onClick={() => set({ routine: limit.text })}>
                              Write it
                            </Button>
                          ),
                        ])}
                      />
                    ),
                  }
                : {}),
              ...(answer.outs.length
                ? {
                    'What to prepare': (
                      <DeskTable
                        name="What to prepare"
                        head={['Ending, the likeliest first', 'How often', 'with those before']}
                        rows={answer.outs.map((out) => [out.words, out.text, out.so_far])}
                      />
                    ),
                  }
                : {}),
              ...Object.fromEntries(
                answer.distributions.map((one) => [
                  `Odds of ${one.about}`,
                  <DeskTable name={`Odds of ${one.about}`} head={['Outcome', 'How often']} rows={one.outcomes.map((o) => [o.outcome, o.text])} />,
                ]),
              ),
            }}
          />
        </>
      )}
    </DeskFrame>
  );
}

interface HabitProps {
  name: string;
  line: number;
  low: number | null;
  high: number | null;
  habit: Habit | null;
  onHabit: (habit: Habit | null) => void;
}

/** How one number is chosen. */
function HabitFields({ name, line, low, high, habit, onHabit }: HabitProps) {
  const range = { low: habit?.low ?? low ?? 0, high: habit?.high ?? high ?? 51 };
  return (
    <fieldset className="habit">
      <legend>
        {name}, line {line}
      </legend>
      <Select
        size="xs"
        aria-label={`How ${name} is chosen`}
        data={[
          { value: '', label: 'like the rest' },
          { value: 'evenly', label: 'evenly' },
          { value: 'about the middle', label: 'about the middle' },
          { value: 'as recorded', label: 'as recorded' },
        ]}
        value={habit?.kind ?? ''}
        allowDeselect={false}
        onChange={(kind) => onHabit(kind ? { kind: kind, ...range, seen: habit?.seen ?? `${range.low}` } : null)}
      />
      {habit && habit.kind !== 'as recorded' && (
        <div className="pair">
          <Count label="from" value={range.low} onValue={(now) => onHabit({ ...habit, low: now })} />
          <Count label="to" value={range.high} onValue={(now) => onHabit({ ...habit, high: now })} />
        </div>
      )}
      {habit?.kind === 'as recorded' && <Words label="numbers that were chosen" value={habit.seen} onValue={(seen) => onHabit({ ...habit, seen })} />}
      {habit && <small className="quiet">{habitText(name, habit)}</small>}
    </fieldset>
  );
}
