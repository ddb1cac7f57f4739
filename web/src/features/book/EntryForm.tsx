import { Autocomplete, Button, Group, NumberInput, SegmentedControl, Select, Textarea, TextInput } from '@mantine/core';
import { getHotkeyHandler } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, type NewEntry, type Performance } from '../../api/client';
import { bookQuery, picksQuery, questionsQuery, routinesQuery, slipsOfQuery } from '../../api/queries';
import { dropEntryDraft, entryDraft, keepEntryDraft } from './entryDraft';
import { TOLD_HERE } from '../../api/queryClient';

const ENDINGS: { value: NewEntry['ended']; label: string }[] = [
  { value: 'as planned', label: 'as planned' },
  { value: 'another way', label: 'another way' },
  { value: 'failed', label: 'failed' },
];

/** The day in this place, as the book writes it. */
const today = () => new Date().toLocaleDateString('sv-SE');

/** One performance: which routine, when, how it ended, what they chose. All but the routine and the day may be left out. */
export function EntryForm({ entry, of = null, done }: { entry: Performance | null; of?: number | null; done: () => void }) {
  const client = useQueryClient();
  const { data: routines = [] } = useQuery(routinesQuery());
  const { data: book = [] } = useQuery(bookQuery());
  const mine = routines.find((one) => one.uid === entry?.routine)?.id ?? null;
  const draft = entryDraft(entry?.uid ?? '');
  const [id, setId] = useState<number | null>(mine ?? of ?? draft?.routine_id ?? null);
  const [told, setTold] = useState<NewEntry>(
    (draft && (of === null || draft.routine_id === of) ? draft : null) ?? {
      played_on: entry?.played_on ?? today(),
      occasion: entry?.occasion ?? book[0]?.occasion ?? '',
      audience: entry?.audience ?? '',
      ended: entry?.ended ?? 'as planned',
      chosen: entry?.chosen ?? {},
      slip: entry?.slip ?? '',
      minutes: entry?.minutes ?? null,
      went: entry?.went ?? null,
      note: entry?.note ?? '',
    },
  );
  const { data: slips = [] } = useQuery({ ...slipsOfQuery(id ?? 0), enabled: id !== null });
  const { data: questions = [] } = useQuery({ ...questionsQuery(id ?? 0), enabled: id !== null });
  const { data: picks = [] } = useQuery({ ...picksQuery(id ?? 0), enabled: id !== null });
  // The browser keeps what is typed until it is in the book.
  const set = (change: Partial<NewEntry>) => {
    const next = { ...told, ...change };
    setTold(next);
    keepEntryDraft(entry?.uid ?? '', { ...next, routine_id: id });
  };
  const choose = (name: string, choice: number | string | null) => {
    const others = Object.fromEntries(Object.entries(told.chosen ?? {}).filter(([other]) => other !== name));
    set({ chosen: choice === null ? others : { ...others, [name]: choice } });
  };
  const save = useMutation({
    ...TOLD_HERE,
    // A performance that is changed keeps the text that was played.
    mutationFn: () => (entry ? api.changeEntry(entry.uid, told) : api.writeEntry({ ...told, routine_id: id })),
    onSuccess: () => {
      dropEntryDraft(entry?.uid ?? '');
      void client.invalidateQueries({ queryKey: bookQuery().queryKey });
      done();
    },
  });
  const trouble = save.error instanceof ApiError ? save.error : null;
  const wrong = (field: keyof NewEntry) => (trouble?.told.where === field ? trouble.whole : undefined);
  const words = (field: 'occasion' | 'audience' | 'slip') => [...new Set(book.map((one) => one[field]).filter(Boolean))];
  const submit = () => (entry || id !== null) && save.mutate();
  return (
    <form
      className="entry"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
      onKeyDown={getHotkeyHandler([['mod+Enter', submit]])}
    >
      {entry ? (
        <p className="quiet">{entry.title}, as it was played</p>
      ) : (
        <Select
          label="Routine"
          searchable
          data-autofocus
          placeholder="What was shown"
          data={routines.map((one) => ({ value: String(one.id), label: one.title }))}
          value={id === null ? null : String(id)}
          onChange={(now) => {
            const next = now === null ? null : Number(now);
            setId(next);
            keepEntryDraft('', { ...told, routine_id: next });
          }}
        />
      )}
      <Group grow align="start">
        <TextInput label="Day" value={told.played_on} onChange={(event) => set({ played_on: event.currentTarget.value })} error={wrong('played_on')} />
        <Autocomplete label="Occasion" data={words('occasion')} value={told.occasion} onChange={(occasion) => set({ occasion })} />
        <Autocomplete label="Audience" data={words('audience')} value={told.audience} onChange={(audience) => set({ audience })} />
      </Group>
      <div>
        <p className="label" id="ended">
          How it ended
        </p>
        <SegmentedControl
          aria-labelledby="ended"
          data={ENDINGS.map((one) => ({ value: one.value ?? '', label: one.label }))}
          value={told.ended}
          onChange={(ended) => set({ ended: ended })}
        />
      </div>
      {questions.length > 0 && (
        <Group align="start">
          {questions.map((one) => (
            <NumberInput
              key={one.name}
              w={150}
              label={`${one.name}, line ${one.line}`}
              description={one.low === null ? one.says : `${one.low} to ${one.high}`}
              inputWrapperOrder={['label', 'input', 'description', 'error']}
              allowDecimal={false}
              allowNegative={false}
              value={told.chosen?.[one.name] ?? ''}
              onChange={(now) => choose(one.name, typeof now === 'number' ? now : null)}
            />
          ))}
        </Group>
      )}
      {picks.length > 0 && (
        <Group align="start">
          {picks.map((one) => (
            <Autocomplete
              key={one.name}
              w={185}
              label={one.name}
              description={one.says}
              inputWrapperOrder={['label', 'input', 'description', 'error']}
              data={one.options}
              limit={60}
              value={String(told.chosen?.[one.name] ?? '')}
              onChange={(now) => choose(one.name, now || null)}
            />
          ))}
        </Group>
      )}
      {wrong('chosen') && <p className="trouble">{wrong('chosen')}</p>}
      <Group grow align="start">
        <Autocomplete
          label="What slipped"
          placeholder="nothing"
          limit={30}
          data={[...new Set([...slips.map((one) => one.what), ...words('slip')])]}
          value={told.slip}
          onChange={(slip) => set({ slip })}
        />
        <NumberInput
          label="Minutes"
          value={told.minutes ?? ''}
          min={0}
          step={0.5}
          onChange={(now) => set({ minutes: typeof now === 'number' ? now : null })}
          error={wrong('minutes')}
        />
        <Select
          label="How it went"
          clearable
          data={['1', '2', '3', '4', '5'].map((value) => ({ value, label: { '1': '1, badly', '5': '5, very well' }[value] ?? value }))}
          value={told.went ? String(told.went) : null}
          onChange={(now) => set({ went: now === null ? null : Number(now) })}
        />
      </Group>
      <Textarea label="Note" autosize minRows={2} value={told.note} onChange={(event) => set({ note: event.currentTarget.value })} error={wrong('note')} />
      {save.error && !['played_on', 'chosen', 'minutes', 'note'].includes(trouble?.told.where ?? '') && (
        <p role="alert">{trouble?.whole ?? save.error.message}</p>
      )}
      <Group justify="end">
        <Button
          variant="default"
          onClick={() => {
            dropEntryDraft(entry?.uid ?? '');
            done();
          }}
        >
          Leave it
        </Button>
        <Button type="submit" loading={save.isPending} disabled={!entry && id === null}>
          Write it down
        </Button>
      </Group>
    </form>
  );
}
