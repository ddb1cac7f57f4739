import { Button, Loader } from '@mantine/core';
import { api } from '../api/client';
import { useProgress } from '../features/bench/useProgress';

interface WorkingProps {
  job: string;
  /** what is being done, as a sentence that has not ended */
  doing: string;
  /** why it ended without an answer; null while it goes on */
  error: Error | null;
  again: () => void;
}

/** Long work that is waited for: how far it is, and a way to stop it and to go on. */
export function Working({ job, doing, error, again }: WorkingProps) {
  const progress = useProgress(error ? null : job);
  if (error)
    return (
      <p className="quiet" role="alert">
        {error.message}{' '}
        <Button size="compact-xs" variant="default" onClick={again}>
          Go on
        </Button>
      </p>
    );
  return (
    <p className="quiet" role="status">
      <Loader size="xs" /> {doing} {progress}{' '}
      <Button size="compact-xs" variant="default" onClick={() => void api.cancel(job)}>
        Stop
      </Button>
    </p>
  );
}
