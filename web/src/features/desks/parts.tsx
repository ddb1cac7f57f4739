import { Alert, Button, Loader, Menu, NumberInput, TextInput, Textarea } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { IconArrowRight, IconDownload } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { api, type DeskName, type Send } from '../../api/client';
import { routinesQuery } from '../../api/queries';
import { Scrolling } from '../../ui/Scrolling';
import { Tabs } from '../../ui/Tabs';
import { ordinal } from '../bench/layout';
import { LearnButton } from './LearnButton';
import { lines, numbers } from './asks';
import type { DeskState } from './useDesk';

/** The frame of a desk: what is asked on the left, what comes out on the right. */
export function DeskFrame<N extends DeskName>({
  desk,
  title,
  about,
  form,
  children,
}: {
  desk: DeskState<N>;
  title: string;
  about: string;
  form: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="desk">
      <form className="asks" aria-label={`What is asked: ${title}`} onSubmit={(event) => event.preventDefault()}>
        <h1>{title}</h1>
        <p className="quiet">{about}</p>
        {form}
      </form>
      <section className="told" tabIndex={0} aria-label={`What comes out: ${title}`} data-old={desk.old}>
        <Waiting desk={desk} />
        {children}
      </section>
    </div>
  );
}

function Waiting<N extends DeskName>({ desk }: { desk: DeskState<N> }) {
  if (desk.progress !== null)
    return (
      <p className="quiet waiting" role="status">
        <Loader size="xs" /> {desk.progress}{' '}
        <Button size="compact-xs" variant="default" onClick={desk.stop}>
          Stop
        </Button>
      </p>
    );
  if (desk.stopped)
    return (
      <p className="quiet waiting" role="status">
        {desk.stopped}{' '}
        <Button size="compact-xs" variant="default" onClick={() => desk.longer()}>
          Search longer
        </Button>
      </p>
    );
  return null;
}

/** The picture of the answer, and everything as files. */
export function Picture<N extends DeskName>({ desk, name, children }: { desk: DeskState<N>; name: string; children?: ReactNode }) {
  const picture = desk.reply?.picture;
  return (
    <figure className="picture" aria-label={name}>
      <figcaption>
        <h2>{name}</h2>
        {children}
        <LearnButton desk={desk} />
        <Files desk={desk} />
      </figcaption>
      {/* Drawn by our own server, which escapes every word in it. */}
      {picture ? (
        <Scrolling className="drawn" name={`Picture: ${name}`}>
          <div dangerouslySetInnerHTML={{ __html: picture }} />
        </Scrolling>
      ) : (
        <p className="quiet">Nothing to draw.</p>
      )}
    </figure>
  );
}

function Files<N extends DeskName>({ desk }: { desk: DeskState<N> }) {
  const asked = encodeURIComponent(desk.address);
  const at = `/api/desks/${desk.name}`;
  const picture = desk.reply?.picture;
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button size="compact-sm" variant="subtle" color="gray" leftSection={<IconDownload size={15} />}>
          Export
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {(desk.reply?.tables ?? []).map((table, i) => (
          <Menu.Item key={table.name} component="a" href={`${at}/table.csv?table=${i}&asks=${asked}`} download>
            Table of {table.name} (CSV)
          </Menu.Item>
        ))}
        {picture && (
          <>
            <Menu.Item component="a" href={`${at}/picture.svg?asks=${asked}`} download>
              Picture (SVG)
            </Menu.Item>
            <Menu.Item onClick={() => void savePng(`${at}/picture.svg?asks=${asked}`, `${desk.name}.png`)}>Picture (PNG)</Menu.Item>
          </>
        )}
        <Menu.Item component="a" href={`${at}/answer.json?asks=${asked}`} download>
          Everything (JSON)
        </Menu.Item>
        <Menu.Item
          onClick={() =>
            void navigator.clipboard
              .writeText(location.href)
              .then(() => notifications.show({ message: 'The link is copied: it opens this desk as it stands.' }))
          }
        >
          Copy a link to this
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** The picture in twice its natural size, on paper. */
async function savePng(address: string, name: string): Promise<void> {
  const image = new Image();
  image.src = address;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = 2 * image.naturalWidth;
  canvas.height = 2 * image.naturalHeight;
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  canvas.toBlob((blob) => {
    if (!blob) return;
    const link = document.createElement('a');
    link.href = URL.createObjectURL(blob);
    link.download = name;
    link.click();
    URL.revokeObjectURL(link.href);
  }, 'image/png');
}

/** Takes a text to the bench: into a routine, as one change that undo takes back. */
export function useToBench() {
  const go = useNavigate();
  return (id: number, text: string) => void go(`/bench/${id}`, { state: { text } });
}

/** Writes a result into the routine last on the bench, another one, or a new one. There it is proved. */
export function SendButton({ send, label = 'Write it into a routine', opened = false }: { send: Send; label?: string; opened?: boolean }) {
  const [last] = useLocalStorage<number | null>({ key: 'last-bench', defaultValue: null });
  const { data: routines = [] } = useQuery(routinesQuery());
  const toBench = useToBench();
  const into = async (id: number) => {
    const routine = await api.routine(id);
    toBench(id, (await api.send(routine.text, send)).text);
  };
  const afresh = async () => {
    const { text } = await api.send(`Title: From the desk: ${send.label}\n`, send);
    const added = await api.add(text);
    toBench(added.id, text);
  };
  const open = routines.find((routine) => routine.id === last);
  const failed = (error: unknown) => notifications.show({ color: 'red', message: error instanceof Error ? error.message : 'It could not be written.' });
  const others = routines.filter((routine) => routine.id !== last).slice(0, 8);
  return (
    <Menu position="bottom-end" withinPortal defaultOpened={opened}>
      <Menu.Target>
        <Button size="compact-sm" leftSection={<IconArrowRight size={15} />}>
          {label}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {open && <Menu.Item onClick={() => void into(open.id).catch(failed)}>Into {open.title}, which is on the bench</Menu.Item>}
        <Menu.Item onClick={() => void afresh().catch(failed)}>As a new routine</Menu.Item>
        {others.map((routine) => (
          <Menu.Item key={routine.id} onClick={() => void into(routine.id).catch(failed)}>
            Into {routine.title}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

/** A table of the answer. */
export function DeskTable({ name, head, rows }: { name: string; head: ReactNode[]; rows: ReactNode[][] }) {
  return (
    <Scrolling className="table-scroll" name={`Table: ${name}`}>
      <table className="desk-table" aria-label={name}>
        <thead>
          <tr>
            {head.map((cell, i) => (
              <th key={i}>{cell}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, j) => (
                <td key={j}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scrolling>
  );
}

/** Parts of an answer, one at a time. */
export function Parts({ parts, children }: { parts: Record<string, ReactNode>; children?: ReactNode }) {
  const names = Object.keys(parts);
  const [shown, setShown] = useState(names[0]);
  const open = shown !== undefined && shown in parts ? shown : names[0];
  if (open === undefined) return null;
  return (
    <Tabs
      className="parts"
      label="Parts of the answer"
      tabs={names.map((name) => ({ value: name, label: name }))}
      value={open}
      onChange={setShown}
      beside={children}
    >
      {parts[open]}
    </Tabs>
  );
}

interface FieldProps<V> {
  label: string;
  value: V;
  onValue: (value: V) => void;
  error?: string;
  description?: string;
  placeholder?: string;
}

export function Count({ value, onValue, ...rest }: FieldProps<number>) {
  return (
    <NumberInput size="xs" value={value} allowDecimal={false} allowNegative={false} onChange={(now) => typeof now === 'number' && onValue(now)} {...rest} />
  );
}

/** Some numbers in one field; what is being typed stays as it is. */
export function Counts({ value, onValue, ...rest }: FieldProps<number[]>) {
  const [typed, setTyped] = useState(value.join(', '));
  const shown = JSON.stringify(numbers(typed)) === JSON.stringify(value) ? typed : value.join(', ');
  return (
    <TextInput
      size="xs"
      inputMode="numeric"
      value={shown}
      onChange={(event) => {
        setTyped(event.currentTarget.value);
        onValue(numbers(event.currentTarget.value));
      }}
      {...rest}
    />
  );
}

export function Words({ value, onValue, ...rest }: FieldProps<string>) {
  return <TextInput size="xs" value={value} onChange={(event) => onValue(event.currentTarget.value)} {...rest} />;
}

export function Rows({ value, onValue, rows = 4, ...rest }: FieldProps<string[]> & { rows?: number }) {
  return (
    <Textarea
      size="xs"
      autosize
      minRows={rows}
      maxRows={14}
      value={value.join('\n')}
      onChange={(event) => onValue(lines(event.currentTarget.value))}
      spellCheck={false}
      {...rest}
    />
  );
}

export function Told({ children, tone = 'sure' }: { children: ReactNode; tone?: 'sure' | 'broken' | 'plain' }) {
  return tone === 'broken' ? (
    <Alert color="red" variant="light" className="desk-told broken">
      {children}
    </Alert>
  ) : (
    <p className={`desk-told ${tone}`} role="status">
      {children}
    </p>
  );
}

export const percent = (share: number) => `${(100 * share).toFixed(share > 0.0995 && share < 0.9995 ? 1 : 2)} %`;

export { ordinal };
