import { Button, Skeleton } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router';
import { ApiError, api } from '../../api/client';
import { routineQuery } from '../../api/queries';
import { NotFound } from '../../ui/NotFound';
import { Bench } from './Bench';
import { draftOfMissing, dropDraftOfMissing } from './drafts';

/** Opens a routine and puts it on the bench. */
export default function BenchPage() {
  const id = Number(useParams().id);
  const { data, error, isFetching, refetch } = useQuery(routineQuery(id));
  const [, setLastBench] = useLocalStorage<number | null>({ key: 'last-bench', defaultValue: null });
  useEffect(() => {
    if (data) setLastBench(id);
  }, [data, id, setLastBench]);
  if (error) {
    const gone = error instanceof ApiError && error.status === 404;
    return gone ? (
      <Missing id={id} />
    ) : (
      <div className="empty" role="alert">
        <h1>The routine cannot be opened</h1>
        <p>{error instanceof ApiError ? error.whole : error.message} What was typed and not saved is kept in this browser.</p>
        <Button onClick={() => void refetch()}>Try again</Button>
      </div>
    );
  }
  if (!data || (isFetching && data.id !== id)) {
    return (
      <div className="bench" aria-busy="true" aria-label="Opening the routine">
        <Skeleton height={62} radius={0} />
      </div>
    );
  }
  return <Bench key={data.id} routine={data} />;
}

/** A routine that is not on the shelf; what was typed into it and never saved need not be lost with it. */
function Missing({ id }: { id: number }) {
  const go = useNavigate();
  const { data: health } = useQuery({ queryKey: ['health'], queryFn: api.health });
  const draft = health?.shelf ? draftOfMissing(health.shelf, id) : null;
  if (!draft || !health?.shelf) return <NotFound what="This routine is not on the shelf." />;
  const shelf = health.shelf;
  const put = async () => {
    const added = await api.add(draft.text);
    dropDraftOfMissing(shelf, id);
    void go(`/bench/${added.id}`, { replace: true });
  };
  return (
    <div className="empty" role="alert">
      <h1>This routine is not on the shelf</h1>
      <p>But this browser holds a draft of it that was never saved.</p>
      <pre className="rows" tabIndex={0}>
        {draft.text}
      </pre>
      <Button onClick={() => void put()}>Put the draft on the shelf</Button>
    </div>
  );
}
