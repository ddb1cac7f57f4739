import { Button } from '@mantine/core';
import { Link } from 'react-router';

export function NotFound({ what = 'There is nothing at this address.' }: { what?: string }) {
  return (
    <div className="empty" role="alert">
      <h1>Not here</h1>
      <p>{what}</p>
      <Button component={Link} to="/">
        Go to the shelf
      </Button>
    </div>
  );
}
