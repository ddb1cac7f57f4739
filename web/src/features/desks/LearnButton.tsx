import { Button, Popover, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiError, api, type DeskName } from '../../api/client';
import { deskDrillsQuery, desksQuery } from '../../api/queries';
import type { DeskState } from './useDesk';
import { TOLD_HERE } from '../../api/queryClient';

/** What was found is learned by heart: its questions come with the drills, under a name of one’s own. */
export function LearnButton<N extends DeskName>({ desk }: { desk: DeskState<N> }) {
  const client = useQueryClient();
  const go = useNavigate();
  const { data: desks = [] } = useQuery(desksQuery());
  const declared = desks.find((one) => one.name === desk.name);
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState('');
  const learn = useMutation({
    ...TOLD_HERE,
    mutationFn: () => api.learnFromDesk(desk.name, title, desk.asks as Record<string, unknown>),
    onSuccess: ({ drill }) => {
      void client.invalidateQueries({ queryKey: deskDrillsQuery().queryKey });
      void go(`/practice/desk/${drill.uid}`);
    },
  });
  if (!declared?.can_be_learned) return null;
  return (
    <Popover opened={open} onChange={setOpen} trapFocus position="bottom-end" shadow="md">
      <Popover.Target>
        <Button size="compact-sm" variant="default" onClick={() => setOpen(!open)} disabled={desk.old}>
          Learn it by heart
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            learn.mutate();
          }}
        >
          <TextInput
            label="Call it"
            data-autofocus
            maxLength={120}
            placeholder={declared.title}
            value={title}
            onChange={(event) => setTitle(event.currentTarget.value)}
            error={learn.error instanceof ApiError ? learn.error.whole : learn.error?.message}
          />
          <Button type="submit" size="compact-sm" mt="xs" loading={learn.isPending}>
            To the drills
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
