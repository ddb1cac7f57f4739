import { Button, Group, SegmentedControl } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, type DrillsOf, type Due } from '../../api/client';
import { deskDrillsQuery, drillsQuery, practisedQuery } from '../../api/queries';
import { Scrolling } from '../../ui/Scrolling';
import { DueChart } from './DueChart';
import { Question } from './Question';
import { ago, newUid } from './ago';

/** Every question that a routine, or what a desk found, asks of its performer; what is due is asked, by keyboard. */
export function Drills({ of, begun }: { of: DrillsOf; begun: boolean }) {
  const { data, error, refetch } = useQuery(drillsQuery(of));
  const [only, setOnly] = useState('');
  const [session, setSession] = useState<Due[] | null>(null);
  const [atOnce, setAtOnce] = useState(begun);
  if (error) return <p role="alert">{error.message}</p>;
  if (!data) return <p className="quiet">Reading off what has to be known…</p>;
  if (data.standing.length === 0) return <p className="quiet">Nothing in it needs to be known by heart: no sum, no case, no order of cards.</p>;
  const due = data.due
    .map(([drill, key]) => data.standing.find((one) => one.drill === drill && one.question.key === key))
    .filter((one) => one !== undefined)
    .filter((one) => !only || one.drill === only);
  const shown = data.standing.filter((one) => !only || one.drill === only);
  const begin = (those: Due[]) => setSession(those);
  if (atOnce && session === null && due.length > 0) {
    setAtOnce(false);
    setSession(due);
  }
  if (session)
    return (
      <Session
        of={of}
        questions={session}
        done={() => {
          setSession(null);
          void refetch();
        }}
      />
    );
  return (
    <>
      <Group className="drill-head">
        <SegmentedControl
          aria-label="Which drill"
          data={[{ value: '', label: 'all' }, ...data.drills.map((one) => ({ value: one.name, label: `${one.name} (${one.questions})` }))]}
          value={only}
          onChange={setOnly}
        />
        <Button onClick={() => begin(due)} disabled={due.length === 0} autoFocus>
          {due.length > 0 ? `Ask what is due (${due.length})` : 'Nothing is due'}
        </Button>
        <Button variant="default" onClick={() => begin(shown.slice(0, 20))}>
          The hardest
        </Button>
        <Button variant="default" component="a" href={`/api/practice/${typeof of === 'number' ? of : `desks/${of}`}/drills.csv`} download>
          As a table
        </Button>
        <Button variant="default" onClick={() => window.print()}>
          Print
        </Button>
      </Group>
      <Scrolling className="standing" name="Every question, the hardest first">
        <table>
          <thead>
            <tr>
              <th scope="col">Known</th>
              <th scope="col">Asked</th>
              <th scope="col">Right is</th>
              <th scope="col">The rule</th>
              <th scope="col">So far</th>
              <th scope="col">Due</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => (
              <tr key={`${one.drill} ${one.question.key}`}>
                <td>{one.question.known}</td>
                <td>{one.question.asks}</td>
                <td>{one.question.answer}</td>
                <td>{one.question.rule}</td>
                <td className="figures">
                  {one.asked ? `${one.right} of ${one.asked}` : 'new'}
                  {one.seconds !== null && one.seconds !== undefined ? `, ${one.seconds.toFixed(1)} s` : ''}
                </td>
                <td>{one.due ? (new Date(one.due) <= new Date() ? 'now' : `${one.due.slice(0, 10)}`) : '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolling>
      <p className="quiet">{lastAnswered(data.standing)}</p>
      <DueChart due={shown.map((one) => one.due)} />
    </>
  );
}

function lastAnswered(standing: Due[]): string {
  const asked = standing.filter((one) => one.asked > 0);
  if (asked.length === 0) return 'None of them was asked yet.';
  const right = asked.reduce((sum, one) => sum + one.right, 0);
  const all = asked.reduce((sum, one) => sum + one.asked, 0);
  return `${asked.length} of ${standing.length} were asked so far, ${Math.round((100 * right) / all)} of 100 answers right.`;
}

/** One after the other; what was wrong comes again at the end. Every answer is written down as it is given. */
function Session({ of, questions, done }: { of: DrillsOf; questions: Due[]; done: () => void }) {
  const client = useQueryClient();
  const [queue, setQueue] = useState(questions);
  const [at, setAt] = useState(0);
  const [results, setResults] = useState<{ due: Due; right: boolean; seconds: number }[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const now = queue[at];
  const written = async (due: Due, right: boolean, seconds: number) => {
    const answer = { uid: newUid(), drill: due.drill, question: due.question.key, right, seconds: Math.min(3600, seconds) };
    for (let tries = 0; ; tries++) {
      try {
        await api.answer(of, answer);
        setTrouble(null);
        void client.invalidateQueries({ queryKey: practisedQuery().queryKey });
        void client.invalidateQueries({ queryKey: deskDrillsQuery().queryKey });
        return;
      } catch (error) {
        setTrouble(error instanceof ApiError ? error.whole : 'The server does not answer.');
        if (tries === 20) return;
        await new Promise((wait) => setTimeout(wait, 2000));
      }
    }
  };
  if (!now) {
    const wrong = results.filter((one) => !one.right);
    return (
      <div className="question" role="status">
        <p className="asks">
          {results.length - wrong.length} of {results.length} right.
        </p>
        {wrong.length > 0 && (
          <ul>
            {wrong.map((one, nth) => (
              <li key={nth}>
                {one.due.question.known}: {one.due.question.answer}. {one.due.question.rule}
              </li>
            ))}
          </ul>
        )}
        <Button onClick={done} autoFocus>
          To the drills
        </Button>
      </div>
    );
  }
  return (
    <>
      <p className="how-far figures">
        {at + 1} of {queue.length} · {now.drill} {now.asked === 0 ? '· new' : `· last asked ${now.due ? ago(now.due) : ''}`}{' '}
        <Button size="compact-xs" variant="subtle" color="gray" onClick={done}>
          Stop here
        </Button>
      </p>
      {trouble && <p role="alert">Not written down yet: {trouble}</p>}
      <Question
        key={at}
        known={now.question.known}
        asks={now.question.asks}
        answer={now.question.answer}
        options={now.question.options}
        rule={now.question.rule}
        answered={(right, seconds) => {
          setResults([...results, { due: now, right, seconds }]);
          void written(now, right, seconds);
          // What was wrong comes once more.
          if (!right && queue.filter((one) => one === now).length < 3) setQueue([...queue, now]);
        }}
        next={() => setAt(at + 1)}
      />
    </>
  );
}
