import { Button, Loader } from '@mantine/core';
import type { Underway } from '../api/useSearch';

interface WorkingProps {
  search: Underway;
  /** what is being done, as a sentence that has not ended */
  doing: string;
}

/** Long work that is waited for: how far it is, and a way to stop it and to go on. */
export function Working({ search, doing }: WorkingProps) {
  if (search.error)
    return (
      <p className="quiet" role="alert">
        {search.error.message}{' '}
        <Button size="compact-xs" variant="default" onClick={search.again}>
          Go on
        </Button>
      </p>
    );
  return (
    <p className="quiet" role="status">
      <Loader size="xs" /> {doing} {search.progress}{' '}
      <Button size="compact-xs" variant="default" onClick={search.stop}>
        Stop
      </Button>
    </p>
  );
}
