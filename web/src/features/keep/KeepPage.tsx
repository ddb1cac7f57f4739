import { Button, Group, Modal, MultiSelect, Skeleton, Table } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconAlertTriangle, IconArchive, IconDownload, IconRestore } from '@tabler/icons-react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Keep } from '../../api/client';
import { keepQuery, removedQuery, routinesQuery, workplaceQuery } from '../../api/queries';
import { ImportButtons } from './Import';
import './keep.css';

const when = (iso: string) => new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
const size = (bytes: number) => (bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`);
const counted = (many: number, what: string) => `${many} ${what}${many === 1 ? '' : 's'}`;

/** What keeps the shelf: its back-ups, its archive, and what was taken off it. */
export default function KeepPage() {
  const client = useQueryClient();
  const { data: keep, error, refetch } = useQuery(keepQuery());
  const [asking, setAsking] = useState<string | null>(null);
  const changed = () => void client.invalidateQueries();
  const make = useMutation({
    mutationFn: api.makeBackup,
    onSuccess: (made) => {
      changed();
      notifications.show({ message: `Backed up, ${size(made.bytes)}.` });
    },
  });
  const restore = useMutation({
    mutationFn: api.restoreBackup,
    onSuccess: () => {
      setAsking(null);
      changed();
      notifications.show({ message: 'The shelf is as that back-up has it. What it was before is a back-up too.' });
    },
  });
  const putBack = useMutation({
    mutationFn: api.putBack,
    onSuccess: () => {
      changed();
      notifications.show({ message: 'The file is where it was, with all that was saved.' });
    },
  });
  if (error)
    return (
      <div className="empty" role="alert">
        <h1>The server does not answer</h1>
        <p>Start Golden Pivot again; what was saved is on the disk. Texts that were not saved are kept as drafts in this browser.</p>
        <Button onClick={() => void refetch()}>Try again</Button>
      </div>
    );
  if (!keep) return <Skeleton height={320} m={26} role="img" aria-label="Looking at the shelf" />;
  const asked = keep.backups.find((one) => one.name === asking);
  return (
    <div className="keep">
      <h1>Keep</h1>
      {keep.trouble && (
        <section className="trouble" role="alert" aria-label="What is the matter">
          <h2>{keep.trouble.message}</h2>
          <p>{keep.trouble.saved}</p>
          <p>{keep.trouble.remedy}</p>
          <Group>
            {keep.trouble.kind === 'gone' && (
              <Button onClick={() => putBack.mutate()} loading={putBack.isPending}>
                Put the file back
              </Button>
            )}
            {keep.trouble.kind === 'damaged' && keep.newest_sound && (
              <Button leftSection={<IconRestore size={17} />} onClick={() => setAsking(keep.newest_sound)}>
                Restore the newest back-up
              </Button>
            )}
            {keep.trouble.kind === 'damaged' && (
              <Button variant="default" leftSection={<IconDownload size={17} />} component="a" href="/api/keep/readable.zip" download>
                Save what can still be read
              </Button>
            )}
          </Group>
          {keep.trouble.kind === 'damaged' && !keep.newest_sound && <p>There is no back-up that can be restored.</p>}
        </section>
      )}
      <section className="panel">
        <header>
          <h2>Back-ups</h2>
          <Button
            size="compact-sm"
            leftSection={<IconArchive size={16} />}
            onClick={() => make.mutate()}
            loading={make.isPending}
            disabled={!keep.file || keep.trouble !== null}
          >
            Back up now
          </Button>
        </header>
        {keep.file ? (
          <p className="where">
            The shelf is <code>{keep.file}</code>, {size(keep.bytes)}; its back-ups lie in <code>{keep.folder}</code>. One is made by itself each day; of those
            the last seven days and eight weeks are kept, and all that you made.
          </p>
        ) : (
          <p className="where">This shelf lies in memory only: it ends with the server.</p>
        )}
        {keep.backups.length > 0 && (
          <Table>
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Made</Table.Th>
                <Table.Th>Why</Table.Th>
                <Table.Th>Size</Table.Th>
                <Table.Th />
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {keep.backups.map((one) => (
                <Table.Tr key={one.name}>
                  <Table.Td className="figures">{when(one.made_at)}</Table.Td>
                  <Table.Td>{one.why}</Table.Td>
                  <Table.Td className="figures">{size(one.bytes)}</Table.Td>
                  <Table.Td ta="right">
                    <Button size="compact-sm" variant="default" aria-label={`Restore the back-up of ${when(one.made_at)}`} onClick={() => setAsking(one.name)}>
                      Restore
                    </Button>
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        )}
      </section>
      {keep.trouble?.kind !== 'damaged' && (
        <>
          <Archive keep={keep} />
          <Removed />
          <Workplace />
        </>
      )}
      <Modal opened={asking !== null} onClose={() => setAsking(null)} title="Restore this back-up?">
        {asked && (
          <>
            <p>
              The shelf will be as it was {when(asked.made_at)} ({asked.why}).{' '}
              {keep.trouble ? 'The damaged file is kept beside it.' : 'What it is now becomes a back-up first, so that you can come back.'}
            </p>
            <Group justify="end">
              <Button variant="default" onClick={() => setAsking(null)}>
                Leave it
              </Button>
              <Button data-autofocus loading={restore.isPending} onClick={() => restore.mutate(asked.name)}>
                Restore
              </Button>
            </Group>
          </>
        )}
      </Modal>
    </div>
  );
}

function Archive({ keep }: { keep: Keep }) {
  const { data: routines = [] } = useQuery(routinesQuery());
  const [only, setOnly] = useState<string[]>([]);
  const query = only.map((id) => `only=${id}`).join('&');
  return (
    <section className="panel">
      <header>
        <h2>The shelf as one file</h2>
      </header>
      <p>
        {counted(keep.routines, 'routine')} with all versions{keep.removed ? `, ${counted(keep.removed, 'removed one')}` : ''} and the settings, as plain texts
        in a .zip that imports back to the same.
      </p>
      <Group align="end">
        <MultiSelect
          label="Only these"
          description="none: the whole shelf"
          data={routines.map((one) => ({ value: String(one.id), label: `${one.title} (${one.id})` }))}
          value={only}
          onChange={setOnly}
          searchable
          clearable
          w={360}
        />
        <Button component="a" href={`/api/keep/shelf.zip${query ? `?${query}` : ''}`} download leftSection={<IconDownload size={17} />}>
          {only.length ? `Export ${only.length}` : 'Export the shelf'}
        </Button>
        <ImportButtons />
      </Group>
    </section>
  );
}

/** A cluster that does not answer keeps nobody from working, but is told. */
function Workplace() {
  const { data: workplace } = useQuery(workplaceQuery());
  return (
    <section className="panel">
      <header>
        <h2>Long searches</h2>
      </header>
      {workplace ? (
        <p role={workplace.trouble ? 'alert' : undefined}>
          {workplace.trouble && <IconAlertTriangle size={16} aria-hidden style={{ verticalAlign: '-2px' }} />} They are worked off {workplace.says}.
        </p>
      ) : (
        <p>Asking where they are worked off…</p>
      )}
    </section>
  );
}

function Removed() {
  const client = useQueryClient();
  const { data: removed = [] } = useQuery(removedQuery());
  const [sure, setSure] = useState(false);
  const changed = () => void client.invalidateQueries();
  const bringBack = useMutation({
    mutationFn: api.bringBack,
    onSuccess: (routine) => {
      changed();
      notifications.show({ message: `${routine.title} is on the shelf again.` });
    },
  });
  const throwAway = useMutation({
    mutationFn: api.throwAwayRemoved,
    onSuccess: ({ number }) => {
      setSure(false);
      changed();
      notifications.show({ message: `${number} thrown away. The back-up made just before still has them.` });
    },
  });
  return (
    <section className="panel">
      <header>
        <h2>Removed routines</h2>
        {removed.length > 0 && (
          <Button size="compact-sm" variant="subtle" color="gray" onClick={() => setSure(true)}>
            Throw all of them away
          </Button>
        )}
      </header>
      {removed.length === 0 && <p>Nothing lies here. What you take off the shelf comes here, and stays until you throw it away.</p>}
      <ul>
        {removed.map((routine) => (
          <li key={routine.id}>
            <span>
              <b>{routine.title}</b> {routine.removed_at && <small>taken off {when(routine.removed_at)}</small>}
            </span>
            <Button size="compact-sm" variant="default" aria-label={`Bring back ${routine.title}`} onClick={() => bringBack.mutate(routine.id)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
      <Modal opened={sure} onClose={() => setSure(false)} title={`Throw ${removed.length} away for good?`}>
        <p>They go with all their versions. A back-up is made first.</p>
        <Group justify="end">
          <Button variant="default" data-autofocus onClick={() => setSure(false)}>
            Leave them
          </Button>
          <Button color="red" loading={throwAway.isPending} onClick={() => throwAway.mutate()}>
            Throw them away
          </Button>
        </Group>
      </Modal>
    </section>
  );
}
