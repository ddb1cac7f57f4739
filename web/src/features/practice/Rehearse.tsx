import { Button, Group, SegmentedControl } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, type BeatDone, type Habit, type Routine } from '../../api/client';
import { practisedQuery, rehearsalQuery, settingsQuery, timesQuery } from '../../api/queries';
import { Performing, type Level } from './Performing';
import { ago, newUid } from './ago';

const LEVELS: { value: Level; label: string }[] = [
  { value: 'sheet', label: 'with the sheet' },
  { value: 'keywords', label: 'keywords only' },
  { value: 'memory', label: 'from memory' },
];
const HABITS: { value: NonNullable<Habit>; label: string }[] = [
  { value: 'evenly', label: 'anybody' },
  { value: 'about the middle', label: 'about the middle' },
  { value: 'awkward', label: 'awkward' },
  { value: 'as in my book', label: 'as in my book' },
];

/** Gone through as a whole, with a spectator who is not there. */
export function Rehearse({ routine }: { routine: Routine }) {
  const [level, setLevel] = useState<Level>('sheet');
  const [habit, setHabit] = useState<NonNullable<Habit>>('evenly');
  const [seed, setSeed] = useState<number | null>(null);
  const { data: times } = useQuery(timesQuery(routine.id));
  const { data, error } = useQuery({ ...rehearsalQuery(routine.id, habit, seed ?? 0), enabled: seed !== null });
  const begin = () => setSeed(Math.floor(Math.random() * 2 ** 31));
  if (seed !== null) {
    if (error) return <p role="alert">{error.message}</p>;
    if (!data) return <p className="quiet">The spectator sits down…</p>;
    if (!data.rehearsal) return <p role="alert">It cannot be rehearsed yet: it is still being written, or takes too long. See the bench.</p>;
    return <Held key={seed} routine={routine} level={level} habit={habit} rehearsal={data.rehearsal} again={begin} done={() => setSeed(null)} />;
  }
  return (
    <>
      <div className="rehearse-how">
        <p className="label" id="level">
          How
        </p>
        <SegmentedControl aria-labelledby="level" data={LEVELS} value={level} onChange={setLevel} />
        <p className="label" id="habit">
          The spectator chooses
        </p>
        <SegmentedControl aria-labelledby="habit" data={HABITS} value={habit} onChange={setHabit} />
        <Button onClick={begin} autoFocus>
          Begin
        </Button>
      </div>
      {times && times.rehearsals > 0 && <Times routine={routine} />}
    </>
  );
}

interface HeldProps {
  routine: Routine;
  level: Level;
  habit: NonNullable<Habit>;
  rehearsal: NonNullable<Awaited<ReturnType<typeof api.rehearse>>['rehearsal']>;
  again: () => void;
  done: () => void;
}

/** One rehearsal: written down after every beat; at the end what was slow and what was wrong. */
function Held({ routine, level, habit, rehearsal, again, done }: HeldProps) {
  const client = useQueryClient();
  const [uid] = useState(newUid);
  const [result, setResult] = useState<BeatDone[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const write = async (beats: BeatDone[], finished: boolean) => {
    try {
      await api.writeRehearsal(routine.id, { uid, level, habit, done: beats, finished });
      setTrouble(null);
      void client.invalidateQueries({ queryKey: practisedQuery().queryKey });
      if (finished) void client.invalidateQueries({ queryKey: timesQuery(routine.id).queryKey });
    } catch (error) {
      setTrouble(error instanceof ApiError ? error.whole : 'The server does not answer.');
    }
  };
  if (!result)
    return (
      <>
        {trouble && <p role="alert">Not written down yet: {trouble}</p>}
        <Performing
          rehearsal={rehearsal}
          level={level}
          write={(beats) => void write(beats, false)}
          over={(beats) => {
            setResult(beats);
            void write(beats, true);
          }}
          leave={done}
        />
      </>
    );
  const asked = result.filter((one) => one.right !== null && one.right !== undefined);
  const wrong = asked.filter((one) => !one.right);
  const right = (done: BeatDone) => {
    const beats = rehearsal.beats.filter((one) => one.line === done.line);
    return beats.flatMap((one) => one.asks).find((one) => one.asks === done.asked)?.answer ?? beats[0]?.action;
  };
  const whole = result.reduce((sum, one) => sum + one.seconds, 0);
  return (
    <section className="summary" aria-label="How it went">
      <h2>{rehearsal.comes_out ? 'It comes out.' : `It does not come out: ${rehearsal.where}.`}</h2>
      {trouble && <p role="alert">Not written down yet: {trouble}</p>}
      <p className="figures">
        {Math.round(whole)} seconds; {asked.length - wrong.length} of {asked.length} answers right. The spectator’s choices:{' '}
        {rehearsal.choices.join('; ') || 'none'}.
      </p>
      {wrong.length > 0 && (
        <ul className="wrong-answers">
          {wrong.map((one, at) => (
            <li key={at}>
              ✕ line {one.line}: {one.asked}: {right(one)}; you said {one.answer}
            </li>
          ))}
        </ul>
      )}
      <Group>
        <Button onClick={again} autoFocus>
          Once more
        </Button>
        <Button variant="default" onClick={done}>
          Another way
        </Button>
      </Group>
      <Times routine={routine} />
    </section>
  );
}

/** How long each line takes in one’s own hands, and the paces that follow from it. */
function Times({ routine }: { routine: Routine }) {
  const client = useQueryClient();
  const { data: times } = useQuery(timesQuery(routine.id));
  const { data: settings } = useQuery(settingsQuery());
  const take = useMutation({
    mutationFn: async () => {
      if (settings && times?.paces) await api.changeSettings({ ...settings, paces: times.paces });
    },
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: settingsQuery().queryKey });
      notifications.show({ message: 'Times are reckoned by your own paces from now on.' });
    },
  });
  if (!times || times.rehearsals === 0) return null;
  const most = Math.max(...times.lines.map((one) => one.seconds), 1);
  return (
    <section aria-label="Times by line">
      <h2>
        Rehearsed {times.rehearsals === 1 ? 'once' : `${times.rehearsals} times`}
        {times.last ? `, last ${ago(times.last)}` : ''}
      </h2>
      <table className="times">
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">What</th>
            <th scope="col">Seconds</th>
            <th scope="col">Wrong</th>
          </tr>
        </thead>
        <tbody>
          {times.lines.map((one) => (
            <tr key={one.line}>
              <td className="figures">{one.line}</td>
              <td>{one.text}</td>
              <td className="figures">
                <span className="time-bar" style={{ width: `${(70 * one.seconds) / most}px` }} aria-hidden="true" /> {one.seconds.toFixed(1)}
              </td>
              <td className="figures">{one.wrong || ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {times.paces && (
        <p>
          By these you take {times.paces.card.toFixed(1)} s a card and {times.paces.word.toFixed(1)} s a word.{' '}
          <Button size="compact-sm" variant="default" loading={take.isPending} onClick={() => take.mutate()}>
            Reckon with my own paces
          </Button>
        </p>
      )}
    </section>
  );
}
