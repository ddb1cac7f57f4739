import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../../api/client';
import { principlesQuery, routinesQuery } from '../../api/queries';
import { useFirstProof } from './FirstProof';

/** the one whose routine is short and has one number to spoil */
const PRINCIPLE = 'Digit sum';

/** Puts the routine of the guided first proof on the shelf and opens it. */
export function useBeginFirstProof() {
  const client = useQueryClient();
  const go = useNavigate();
  const [, set] = useFirstProof();
  const begin = useMutation({
    mutationFn: async () => {
      const principles = await client.fetchQuery(principlesQuery());
      const principle = principles.find((one) => one.name === PRINCIPLE) ?? principles[0];
      return api.add((principle?.text ?? '').replace(/^Title: .*/, 'Title: A first proof'));
    },
    onSuccess: (routine) => {
      set(routine.id);
      void client.invalidateQueries({ queryKey: routinesQuery().queryKey });
      void go(`/bench/${routine.id}`);
    },
  });
  return begin.mutate;
}
