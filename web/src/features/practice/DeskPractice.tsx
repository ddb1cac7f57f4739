import { Button, Skeleton } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api } from '../../api/client';
import { deskDrillsQuery } from '../../api/queries';
import { NotFound } from '../../ui/NotFound';
import { undoable } from '../../ui/undoable';
import { Drills } from './Drills';
import './practice.css';

/** What was found at a desk, learned by heart. */
export default function DeskPractice() {
  const { uid = '' } = useParams();
  const [search] = useSearchParams();
  const go = useNavigate();
  const client = useQueryClient();
  const { data: all } = useQuery(deskDrillsQuery());
  const anew = () => client.invalidateQueries({ queryKey: deskDrillsQuery().queryKey });
  const drop = useMutation({
    mutationFn: () => api.dropDeskDrill(uid),
    onSuccess: (gone) => {
      void anew();
      void go('/practice');
      undoable(`${gone.title} is no longer learned.`, 'Put it back', () => void api.putBackDeskDrill(gone).then(anew));
    },
  });
  if (!all) return <Skeleton height={300} role="img" aria-label="Fetching what is due" />;
  const drill = all.find((one) => one.drill.uid === uid)?.drill;
  if (!drill) return drop.isSuccess ? null : <NotFound what="This is not learned from a desk, or no longer." />;
  return (
    <div className="practice">
      <header className="practice-head">
        <h1>{drill.title}</h1>
        <Link to={`/desks/${drill.desk}?asks=${encodeURIComponent(drill.asks)}`}>to the desk</Link>
        <Button size="compact-sm" variant="default" onClick={() => drop.mutate()}>
          Learn it no longer
        </Button>
      </header>
      <Drills key={uid} of={uid} begun={search.has('go')} />
    </div>
  );
}
