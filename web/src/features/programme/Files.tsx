import { Button, Group, Loader } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { ApiError, api, type Occasion, type Programme } from '../../api/client';
import { bookQuery } from '../../api/queries';
import { TOLD_HERE } from '../../api/queryClient';

interface FilesProps {
  programme: Programme;
  occasion: Occasion;
  /** once the shelf has what stands here: files and entries are made from that */
  saved: () => Promise<void>;
}

/** What is taken along, and what is written down afterwards. */
export function Files({ programme, occasion, saved }: FilesProps) {
  const client = useQueryClient();
  const go = useNavigate();
  const fetched = useMutation({
    ...TOLD_HERE,
    mutationFn: async (size: 'page' | 'letter') => {
      await saved();
      const reply = await fetch(`/api/programmes/${programme.uid}/programme.pdf?size=${size}`);
      if (!reply.ok) throw new ApiError(reply.status, (await reply.json()) as object);
      const link = document.createElement('a');
      link.href = URL.createObjectURL(await reply.blob());
      link.download = `${occasion.title}.pdf`;
      link.click();
      URL.revokeObjectURL(link.href);
    },
  });
  const written = useMutation({
    ...TOLD_HERE,
    mutationFn: async () => {
      await saved();
      return api.writePlayed(programme.uid, { played_on: '', entries: [] });
    },
    onSuccess: (entries) => {
      void client.invalidateQueries({ queryKey: bookQuery().queryKey });
      notifications.show({ message: `${entries.length} performances are in the book, as planned. Change there what went another way.` });
      void go('/book');
    },
  });
  const none = occasion.routines.length === 0;
  const trouble = fetched.error ?? written.error;
  return (
    <section aria-label="To take along">
      <h2>To take along</h2>
      <Group gap={6}>
        <Button size="compact-sm" disabled={none} loading={fetched.isPending} onClick={() => fetched.mutate('page')}>
          Everything as PDF
        </Button>
        <Button size="compact-sm" variant="default" disabled={none} loading={fetched.isPending} onClick={() => fetched.mutate('letter')}>
          on Letter
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          component="a"
          href={`/api/programmes/${programme.uid}/programme.ics`}
          download
          aria-disabled={!occasion.held_on}
          data-disabled={!occasion.held_on || undefined}
        >
          Calendar
        </Button>
        <Button size="compact-sm" variant="default" disabled={none} loading={written.isPending} onClick={() => written.mutate()}>
          It was shown: into the book
        </Button>
      </Group>
      {fetched.isPending && (
        <p className="quiet" role="status">
          <Loader size="xs" /> Running order, packing list, set-ups and cue sheets are written…
        </p>
      )}
      {trouble && <p role="alert">{trouble instanceof ApiError ? trouble.whole : trouble.message}</p>}
    </section>
  );
}
