import { Button, FileButton, NativeSelect, Textarea } from '@mantine/core';
import { useDebouncedValue, useLocalStorage } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type Schemas } from '../../api/client';
import { notesPageQuery, proveQuery, routinesQuery } from '../../api/queries';
import { VerdictMark, toneOf } from '../bench/VerdictBar';
import './notes-page.css';
import { TOLD_HERE } from '../../api/queryClient';

type Sentence = Schemas['Sentence'];
const AS_REMARK = -1;

/** A page of notes on the left, what each sentence is read as on the right; what is open comes first. */
export default function NotesPage() {
  const go = useNavigate();
  const client = useQueryClient();
  // Kept in this browser until it has become a routine.
  const [text, setText] = useLocalStorage({ key: 'notes', defaultValue: '' });
  const [chosen, setChosen] = useState<Record<string, number>>({});
  const [settled] = useDebouncedValue(text, 300);
  const { data: page, isFetching } = useQuery({ ...notesPageQuery(settled, chosen), enabled: settled.trim() !== '' });
  const routine = settled.trim() === '' ? '' : (page?.text ?? '');
  const { data: proof } = useQuery({ ...proveQuery(routine, 'interactive'), enabled: routine !== '' });
  const add = useMutation({
    ...TOLD_HERE,
    mutationFn: api.add,
    onSuccess: (made) => {
      setText('');
      void client.invalidateQueries({ queryKey: routinesQuery().queryKey });
      void go(`/bench/${made.id}`);
    },
  });
  const sentences = routine ? (page?.sentences ?? []) : [];
  const asked = sentences.filter((one) => one.answer.asks);
  const choose = (said: string, nth: number) => setChosen({ ...chosen, [said]: nth });
  const fault = proof?.faults[0];
  return (
    <div className="notes-page">
      <section
        className="notes-side"
        tabIndex={0}
        aria-label="Your notes"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          const dropped = event.dataTransfer.files[0];
          if (dropped) void dropped.text().then(setText);
          else setText(event.dataTransfer.getData('text'));
        }}
      >
        <h1>Read my notes</h1>
        <p className="quiet">Write, paste or drop a page as you would jot it down. What is not understood stays in the routine as a remark.</p>
        <Textarea
          aria-label="Notes"
          autosize
          minRows={14}
          maxRows={30}
          data-autofocus
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          placeholder="The queen of hearts is tenth from the top. They name a number in the teens. Deal that many onto the table …"
        />
        <FileButton accept=".txt,.md,text/plain" onChange={(file) => void file?.text().then(setText)}>
          {(props) => (
            <Button {...props} variant="default" size="compact-sm" mt={8}>
              From a file
            </Button>
          )}
        </FileButton>
      </section>
      <section className="notes-side" tabIndex={0} aria-label="What was understood" aria-busy={isFetching}>
        {routine && (
          <header className="notes-verdict" role="status">
            <VerdictMark tone={toneOf(proof?.verdict)} size={28} />
            <p>{proof?.verdict?.headline ?? (fault ? `Not yet a routine: ${fault.message}` : 'Proving…')}</p>
            <Button loading={add.isPending} onClick={() => add.mutate(routine)}>
              Open as a routine
            </Button>
          </header>
        )}
        {add.error && <p role="alert">{add.error.message}</p>}
        {asked.length > 0 && (
          <>
            <h2>{asked.length === 1 ? 'One question' : `${asked.length} questions`}</h2>
            <ol className="notes-read asks">
              {asked.map((one) => (
                <Read key={one.said} one={one} onChoose={choose} />
              ))}
            </ol>
          </>
        )}
        {sentences.length > 0 && <h2>Sentence by sentence</h2>}
        <ol className="notes-read">
          {sentences.map((one, i) => (
            <Read key={`${i} ${one.said}`} one={one} onChoose={choose} />
          ))}
        </ol>
      </section>
    </div>
  );
}

/** A sentence, and what it was read as; another reading can be taken, or none. */
function Read({ one, onChoose }: { one: Sentence; onChoose: (said: string, nth: number) => void }) {
  const { readings, asks, cannot } = one.answer;
  const options = [
    ...readings.map((reading, i) => ({
      value: String(i),
      label: `${reading.lines.map((line) => line.trim()).join(' / ')}${reading.does ? ` (${reading.does})` : ''}`,
    })),
    { value: String(AS_REMARK), label: 'keep it as a remark' },
  ];
  const taken = readings[one.taken]?.taken ?? [];
  return (
    <li className={one.is_understood ? '' : 'lost'}>
      <p className="said">{one.said || 'not said, and taken for granted'}</p>
      {one.lines.map((line, i) => (
        <p key={i} className="line">
          {line.trimStart()}
        </p>
      ))}
      {cannot && <p className="quiet">The language cannot say this: {cannot}.</p>}
      {!one.is_understood && !cannot && <p className="quiet">Not understood: kept as a remark.</p>}
      {taken.length > 0 && one.said !== '' && <p className="quiet">Taken for granted: {taken.join(', ')}</p>}
      {one.said !== '' && (readings.length > 1 || asks || one.taken === AS_REMARK) && (
        <NativeSelect
          size="xs"
          aria-label={`Which is meant by: ${one.said}`}
          data={options}
          value={String(one.taken)}
          onChange={(event) => onChoose(one.said, Number(event.currentTarget.value))}
        />
      )}
    </li>
  );
}
