import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../api/client';
import { settingsQuery } from '../../api/queries';

/** Whether the words that were read stay above as a remark; and the setting of it. */
export function useKeepWords(): [boolean, (keep: boolean) => void] {
  const client = useQueryClient();
  const { data: settings } = useQuery(settingsQuery());
  const keeping = useMutation({ mutationFn: api.changeSettings, onSuccess: (now) => client.setQueryData(settingsQuery().queryKey, now) });
  const now = (keeping.isPending ? keeping.variables.keep_words : settings?.keep_words) ?? false;
  return [now, (keep) => settings && keeping.mutate({ ...settings, keep_words: keep })];
}
