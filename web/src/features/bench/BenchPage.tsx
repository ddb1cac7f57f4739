import { Skeleton } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useParams } from 'react-router';
import { ApiError } from '../../api/client';
import { routineQuery } from '../../api/queries';
import { NotFound } from '../../ui/NotFound';
import { Bench } from './Bench';

/** Opens a routine and puts it on the bench. */
export default function BenchPage() {
  const id = Number(useParams().id);
  const { data, error, isFetching } = useQuery(routineQuery(id));
  const [, setLastBench] = useLocalStorage<number | null>({ key: 'last-bench', defaultValue: null });
  useEffect(() => {
    if (data) setLastBench(id);
  }, [data, id, setLastBench]);
  if (error) {
    const gone = error instanceof ApiError && error.status === 404;
    return <NotFound what={gone ? 'This routine is not on the shelf.' : error.message} />;
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
