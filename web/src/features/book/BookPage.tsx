import { Button, FileButton, Group, Modal, Select } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, type BookRow, type Performance } from '../../api/client';
import { bookQuery, routinesQuery } from '../../api/queries';
import { Scrolling } from '../../ui/Scrolling';
import { undoable } from '../../ui/undoable';
import { useCommands } from '../palette/commands';
import { EntryForm } from './EntryForm';
import { day } from './bars';
import { Spectators } from './Spectators';
import './book.css';

const chosen = (entry: Performance) =>
  Object.entries(entry.chosen ?? {})
    .map(([name, number]) => (typeof number === 'string' ? `${name}: ${number}` : `${name} ${number}`))
    .join(', ');

/** What was shown, the last first; and what one's own spectators chose. */
export default function BookPage() {
  const client = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const { data: book } = useQuery(bookQuery());
  const { data: routines = [] } = useQuery(routinesQuery());
  const [entry, setEntry] = useState<Performance | null>(null);
  const [rows, setRows] = useState<BookRow[] | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const writing = search.has('write') || entry !== null;
  const write = () => setSearch({ write: '' });
  const shut = () => {
    setEntry(null);
    setSearch({});
  };
  const changed = () => client.invalidateQueries({ queryKey: bookQuery().queryKey });
  const putBack = useMutation({ mutationFn: api.putBackEntry, onSuccess: changed });
  const strike = useMutation({
    mutationFn: (one: Performance) => api.strikeEntry(one.uid),
    onSuccess: (gone) => {
      void changed();
      undoable(`${gone.title}, ${day(gone.played_on)}, is struck out.`, 'Put it back', () => putBack.mutate(gone));
    },
  });
  const look = useMutation({ mutationFn: async (file: File) => api.lookAtTable(await file.text()), onSuccess: setRows });
  const commands = useMemo(() => [{ id: 'write', group: 'Book', label: 'Write a performance', run: () => setSearch({ write: '' }) }], [setSearch]);
  useCommands('book', commands);
  if (!book) return null;
  const played = new Set(book.map((one) => one.routine));
  const known = routines.filter((one) => played.has(one.uid));
  const routine = known.find((one) => String(one.id) === picked) ?? known[0];
  return (
    <div className="book">
      <Group className="book-head">
        <h1>The book</h1>
        <FileButton accept=".csv,text/csv,.json,application/json" onChange={(file) => file && look.mutate(file)}>
          {(props) => (
            <Button {...props} variant="default" loading={look.isPending}>
              From a table…
            </Button>
          )}
        </FileButton>
        <Button variant="default" component="a" href="/api/book/book.csv" download>
          As a table
        </Button>
        <Button variant="default" component="a" href="/api/book/book.json" download>
          As JSON
        </Button>
        <Button onClick={write}>Write a performance</Button>
      </Group>
      <div className="book-halves">
        {book.length === 0 ? (
          <p className="quiet">
            Nothing is written yet. After a performance write down what was shown, how it ended and what they chose: it takes less than a minute.
          </p>
        ) : (
          <Scrolling className="entries" name="Performances">
            <table>
              <thead>
                <tr>
                  <th scope="col">Day</th>
                  <th scope="col">Shown</th>
                  <th scope="col">Where, for whom</th>
                  <th scope="col">Chosen</th>
                  <th scope="col">Ended</th>
                  <th aria-label="Change it" />
                </tr>
              </thead>
              <tbody>
                {book.map((one) => (
                  <tr key={one.uid} className={one.ended.replace(' ', '-')}>
                    <td>{day(one.played_on)}</td>
                    <td>{one.title}</td>
                    <td>
                      {[one.occasion, one.audience].filter(Boolean).join(', ')}
                      {one.note && <small>{one.note}</small>}
                    </td>
                    <td className="figures">{chosen(one)}</td>
                    <td>
                      <span className="ended">
                        <span aria-hidden="true">{{ 'as planned': '●', 'another way': '◐', failed: '✕' }[one.ended]}</span> {one.ended}
                      </span>
                      {one.slip && <small>{one.slip}</small>}
                    </td>
                    <td className="does">
                      <Button
                        size="compact-xs"
                        variant="subtle"
                        color="gray"
                        onClick={() => setEntry(one)}
                        aria-label={`Change ${one.title}, ${day(one.played_on)}`}
                      >
                        Change
                      </Button>
                      <Button
                        size="compact-xs"
                        variant="subtle"
                        color="gray"
                        onClick={() => strike.mutate(one)}
                        aria-label={`Strike out ${one.title}, ${day(one.played_on)}`}
                      >
                        Strike
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Scrolling>
        )}
        {routine && (
          <aside className="panel own" aria-label="Your own spectators" tabIndex={0}>
            <h2>Your own spectators</h2>
            <Select
              size="xs"
              aria-label="In which routine"
              allowDeselect={false}
              data={known.map((one) => ({ value: String(one.id), label: one.title }))}
              value={String(routine.id)}
              onChange={setPicked}
            />
            <Spectators routine={routine} />
            <p>
              <Link to={`/bench/${routine.id}`}>to the bench</Link>
            </p>
          </aside>
        )}
      </div>
      <Modal opened={writing} onClose={shut} title={entry ? 'A performance' : 'A performance to write down'} size="lg">
        {writing && <EntryForm entry={entry} of={Number(search.get('write')) || null} done={shut} />}
      </Modal>
      <Modal opened={rows !== null} onClose={() => setRows(null)} title="What the table has" size="xl">
        {rows && <Coming rows={rows} done={() => setRows(null)} />}
      </Modal>
    </div>
  );
}

/** A look at a table before it is taken in: what would be written, and what is the matter with the other rows. */
function Coming({ rows, done }: { rows: BookRow[]; done: () => void }) {
  const client = useQueryClient();
  const good = rows.map((row) => row.entry).filter((one) => one !== null);
  const bad = rows.filter((row) => row.entry === null);
  const take = useMutation({
    mutationFn: () => api.takeTableIn(good),
    onSuccess: ({ written }) => {
      void client.invalidateQueries({ queryKey: bookQuery().queryKey });
      notifications.show({ message: `${written} written; ${good.length - written} were in the book already.` });
      done();
    },
  });
  return (
    <>
      <p>
        {good.length} of {rows.length} rows can be written.
      </p>
      {bad.length > 0 && (
        <ul className="refused">
          {bad.map((row) => (
            <li key={row.number}>
              Row {row.number}: {row.trouble}
            </li>
          ))}
        </ul>
      )}
      <Group justify="end">
        <Button variant="default" onClick={done}>
          Leave it
        </Button>
        <Button disabled={good.length === 0} loading={take.isPending} onClick={() => take.mutate()}>
          Write them down
        </Button>
      </Group>
    </>
  );
}
