import { Button, Checkbox, FileButton, Group, Modal, SegmentedControl } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconFileImport, IconFolder } from '@tabler/icons-react';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiError, api, type Coming } from '../../api/client';
import { Rows } from '../bench/SaveFoot';

type What = 'both' | 'theirs' | 'mine';
const WAYS = [
  { value: 'both', label: 'Keep both' },
  { value: 'theirs', label: 'Take theirs' },
  { value: 'mine', label: 'Keep mine' },
];
const STATES = { new: 'New', same: 'Here already', different: 'Here in other words' };

/** Files, folders or an archive: looked at first, then taken in as decided. */
export function ImportButtons() {
  const folder = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const go = useNavigate();
  const [coming, setComing] = useState<Coming | null>(null);
  const look = async (files: File[]) => {
    if (files.length === 0) return;
    try {
      const found = await lookAt(files);
      const [one, another] = found.routines;
      if (!one) {
        for (const told of found.refused)
          notifications.show({ color: 'red', title: `${files.length === 1 ? files[0]?.name : 'This'} is not a routine`, message: told });
      } else if (!another && one.state === 'new' && found.refused.length === 0 && !found.settings) {
        // Nothing is to be decided about a single new routine: it is what one wants to see.
        const [added] = (await api.takeIn(found.token, { default: 'both', decisions: {}, leave: [], settings: false })).added;
        await client.invalidateQueries();
        void go(`/bench/${added}`);
      } else setComing(found);
    } catch (error) {
      const told = error instanceof ApiError ? error.whole : error instanceof Error ? error.message : '';
      notifications.show({ color: 'red', title: files.length === 1 ? `${files[0]?.name} is not imported` : 'Nothing is imported', message: told });
    }
  };
  return (
    <>
      <FileButton multiple accept=".pivot,.json,.txt,.zip" onChange={(files) => void look(files)}>
        {(props) => (
          <Button {...props} variant="default" leftSection={<IconFileImport size={17} />}>
            Import
          </Button>
        )}
      </FileButton>
      <Button variant="default" leftSection={<IconFolder size={17} />} onClick={() => folder.current?.click()}>
        Import a folder
      </Button>
      <input
        ref={(input) => {
          folder.current = input;
          input?.setAttribute('webkitdirectory', '');
        }}
        type="file"
        multiple
        hidden
        aria-label="A folder of routines"
        onChange={(event) => {
          const files = [...(event.currentTarget.files ?? [])].filter((file) => /\.(pivot|json)$/i.test(file.name));
          event.currentTarget.value = '';
          if (files.length === 0)
            notifications.show({ color: 'red', title: 'Nothing is imported', message: 'There is no .pivot or .json file in that folder.' });
          void look(files);
        }}
      />
      {coming && <Preview coming={coming} close={() => setComing(null)} />}
    </>
  );
}

async function lookAt(files: File[]): Promise<Coming> {
  const archives = files.filter((file) => file.name.toLowerCase().endsWith('.zip'));
  if (archives.length > 1 || (archives.length === 1 && files.length > 1)) throw new Error('Choose one archive alone, or several routines.');
  const [archive] = archives;
  if (archive) return api.lookAtArchive(archive);
  const large = files.find((file) => file.size > 400_000);
  if (large) throw new Error(`${large.name} is larger than any routine. Choose .pivot files, plain text with one sentence a line, or the JSON form.`);
  return api.lookAtFiles(await Promise.all(files.map(async (file) => ({ name: file.webkitRelativePath || file.name, text: await file.text() }))));
}

function Preview({ coming, close }: { coming: Coming; close: () => void }) {
  const client = useQueryClient();
  const [left, setLeft] = useState<number[]>(coming.routines.filter((one) => one.state === 'same').map((one) => one.number));
  const [ways, setWays] = useState<Record<number, What>>({});
  const [settings, setSettings] = useState(false);
  const [shown, setShown] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    try {
      const done = await api.takeIn(coming.token, { default: 'both', decisions: ways, leave: left, settings });
      await client.invalidateQueries();
      const many = done.new + done.both + done.theirs;
      notifications.show({ message: many === 1 ? '1 routine came onto the shelf.' : `${many} routines came onto the shelf.` });
      close();
    } catch (error) {
      notifications.show({ color: 'red', title: 'Nothing was changed', message: error instanceof ApiError ? error.whole : '' });
    } finally {
      setBusy(false);
    }
  };
  const chosen = coming.routines.length - left.length;
  return (
    <Modal opened onClose={close} title="What comes" size="60rem" classNames={{ body: 'coming' }}>
      {coming.refused.map((told) => (
        <p key={told} className="refused" role="alert">
          Not a routine: {told}
        </p>
      ))}
      <ul>
        {coming.routines.map((one) => (
          <li key={one.number} data-state={one.state}>
            <Checkbox
              checked={!left.includes(one.number)}
              aria-label={`Take ${one.title}`}
              onChange={(event) => setLeft(event.currentTarget.checked ? left.filter((number) => number !== one.number) : [...left, one.number])}
            />
            <span>
              <b>{one.title}</b> <small>{one.name}</small>
              <small className="state">
                {STATES[one.state]}
                {one.removed ? ', as a removed one' : ''}
                {one.versions ? `, ${one.versions} versions` : ''}
              </small>
            </span>
            {one.state === 'different' && (
              <>
                <SegmentedControl
                  size="xs"
                  data={WAYS}
                  aria-label={`What to do with ${one.title}`}
                  value={ways[one.number] ?? 'both'}
                  onChange={(way) => setWays({ ...ways, [one.number]: way as What })}
                />
                <Button size="compact-xs" variant="subtle" onClick={() => setShown(shown === one.number ? null : one.number)}>
                  {shown === one.number ? 'Hide' : 'Show both'}
                </Button>
              </>
            )}
            {shown === one.number && one.mine !== null && (
              <div className="two-texts">
                <section aria-label="Theirs">
                  <h3>What comes</h3>
                  <Rows text={one.text} beside={one.mine} />
                </section>
                <section aria-label="Mine">
                  <h3>On the shelf</h3>
                  <Rows text={one.mine} beside={one.text} />
                </section>
              </div>
            )}
          </li>
        ))}
      </ul>
      {coming.settings && (
        <Checkbox label="My settings give way to those that come" checked={settings} onChange={(event) => setSettings(event.currentTarget.checked)} />
      )}
      <Group justify="end" mt="md">
        <Button variant="default" onClick={close}>
          Take nothing
        </Button>
        <Button data-autofocus disabled={chosen === 0} loading={busy} onClick={() => void take()}>
          {chosen === 1 ? 'Take it' : `Take ${chosen}`}
        </Button>
      </Group>
    </Modal>
  );
}
