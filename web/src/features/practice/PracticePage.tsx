import { Button, Skeleton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { deskDrillsQuery, practisedQuery, routinesQuery } from '../../api/queries';
import { NotFound } from '../../ui/NotFound';
import { Tabs } from '../../ui/Tabs';
import { Drills } from './Drills';
import { Rehearse } from './Rehearse';
import { ago } from './ago';
import './practice.css';

const TABS = [
  { value: 'drills', label: 'Drills' },
  { value: 'rehearse', label: 'Rehearse' },
] as const;

/** What is due, for all routines; or one routine, learned piece by piece and gone through as a whole. */
export default function PracticePage() {
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const { data: routines } = useQuery(routinesQuery());
  const { data: practised } = useQuery(practisedQuery());
  const { data: fromDesks = [] } = useQuery(deskDrillsQuery());
  if (!routines || !practised) return <Skeleton height={300} role="img" aria-label="Fetching what is due" />;
  if (id === undefined) {
    const rows = practised.map((one) => ({ ...one, title: routines.find((routine) => routine.id === one.routine)?.title ?? '' })).sort((a, b) => b.due - a.due);
    return (
      <div className="practice">
        <h1>Practice</h1>
        {rows.length === 0 && <p className="quiet">Nothing stands on the shelf yet.</p>}
        {fromDesks.length > 0 && (
          <>
            <h2>From the desks</h2>
            <ul className="due-list">
              {fromDesks.map(({ drill, due }) => (
                <li key={drill.uid} className="panel">
                  <div>
                    <Link to={`/practice/desk/${drill.uid}`}>{drill.title}</Link>
                    <p>
                      {due > 0 ? `${due} due today` : 'nothing due'} · {drill.questions.length} questions
                    </p>
                  </div>
                  <Button
                    component={Link}
                    to={`/practice/desk/${drill.uid}?go`}
                    size="compact-sm"
                    variant={due > 0 ? 'filled' : 'default'}
                    aria-label={`Drill ${drill.title}`}
                  >
                    Drill
                  </Button>
                </li>
              ))}
            </ul>
            <h2>Routines</h2>
          </>
        )}
        <ul className="due-list">
          {rows.map((one) => (
            <li key={one.routine} className="panel">
              <div>
                <Link to={`/practice/${one.routine}`}>{one.title}</Link>
                <p>
                  {one.due > 0 ? `${one.due} due today` : 'nothing due'} · {one.last_rehearsed ? `rehearsed ${ago(one.last_rehearsed)}` : 'never rehearsed'} ·{' '}
                  {one.last_shown ? `shown ${ago(one.last_shown)}` : 'never shown'}
                </p>
              </div>
              <Button
                component={Link}
                to={`/practice/${one.routine}?go`}
                size="compact-sm"
                variant={one.due > 0 ? 'filled' : 'default'}
                aria-label={`Drill ${one.title}`}
              >
                Drill
              </Button>
              <Button component={Link} to={`/practice/${one.routine}?tab=rehearse`} size="compact-sm" variant="default" aria-label={`Rehearse ${one.title}`}>
                Rehearse
              </Button>
            </li>
          ))}
        </ul>
      </div>
    );
  }
  const routine = routines.find((one) => one.id === Number(id));
  if (!routine) return <NotFound what="This routine is not on the shelf." />;
  const tab = search.get('tab') === 'rehearse' ? 'rehearse' : 'drills';
  return (
    <div className="practice">
      <header className="practice-head">
        <h1>{routine.title}</h1>
        <Link to={`/bench/${routine.id}`}>to the bench</Link>
      </header>
      <Tabs label="How to practise" tabs={TABS} value={tab} onChange={(to) => setSearch(to === 'drills' ? {} : { tab: to })}>
        {tab === 'drills' ? <Drills key={routine.id} of={routine.id} begun={search.has('go')} /> : <Rehearse key={routine.id} routine={routine} />}
      </Tabs>
    </div>
  );
}
