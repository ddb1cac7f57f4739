import { NumberInput, TagsInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { ApiError, Occasion } from '../../api/client';

interface FormProps {
  occasion: Occasion;
  change: (what: Partial<Occasion>) => void;
  trouble: ApiError | null;
}

/** When, where, for whom, and what is at hand. A field is saved when it is left. */
export function OccasionForm({ occasion, change, trouble }: FormProps) {
  const wrong = (...fields: string[]) => (fields.includes(trouble?.told.where ?? '') ? trouble?.whole : undefined);
  const told = ['title', 'held_on', 'played_on', 'begins', 'place', 'audience', 'people', 'minutes', 'packs'];
  return (
    <>
      <div className="occasion">
        <Words label="Occasion" name="title" {...{ occasion, change }} error={wrong('title')} />
        <Words label="Day" name="held_on" placeholder="2026-12-05" {...{ occasion, change }} error={wrong('held_on', 'played_on')} />
        <Words label="Begins" name="begins" placeholder="20:30" {...{ occasion, change }} error={wrong('begins')} />
        <Words label="Place" name="place" {...{ occasion, change }} error={wrong('place')} />
        <Words label="For whom" name="audience" {...{ occasion, change }} error={wrong('audience')} />
        <Amount label="Guests" name="people" {...{ occasion, change }} error={wrong('people')} />
        <Amount label="Minutes" name="minutes" {...{ occasion, change }} error={wrong('minutes')} />
        <Amount label="Packs" name="packs" {...{ occasion, change }} error={wrong('packs')} />
        <TagsInput label="Pockets and places at hand" value={occasion.pockets} onChange={(pockets) => change({ pockets })} />
      </div>
      {trouble && !told.includes(trouble.told.where ?? '') && (
        <p className="trouble" role="alert">
          Not saved: {trouble.whole}
        </p>
      )}
    </>
  );
}

type Field<K> = { label: string; name: K; placeholder?: string; occasion: Occasion; change: (what: Partial<Occasion>) => void; error?: string | undefined };

function Words({ label, name, placeholder, occasion, change, error }: Field<'title' | 'held_on' | 'begins' | 'place' | 'audience'>) {
  const [words, setWords] = useState<string | null>(null);
  const leave = () => {
    if (words !== null && words !== occasion[name]) change({ [name]: words });
    setWords(null);
  };
  return (
    <TextInput
      label={label}
      placeholder={placeholder}
      value={words ?? occasion[name]}
      onChange={(event) => setWords(event.currentTarget.value)}
      onBlur={leave}
      onKeyDown={(event) => event.key === 'Enter' && leave()}
      error={error}
    />
  );
}

function Amount({ label, name, occasion, change, error }: Field<'people' | 'minutes' | 'packs'>) {
  return (
    <NumberInput
      label={label}
      allowDecimal={false}
      min={1}
      value={occasion[name] ?? ''}
      onChange={(now) => {
        if (typeof now === 'number') change({ [name]: now });
        else if (now === '' && name !== 'packs') change({ [name]: null });
      }}
      error={error}
    />
  );
}
