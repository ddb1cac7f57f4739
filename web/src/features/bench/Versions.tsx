import { Button, Group, Modal, Table, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useState, type FormEvent } from 'react';
import { api, type Version } from '../../api/client';
import { versionsQuery } from '../../api/queries';

interface VersionsProps {
  id: number;
  /** the text as it stands on the sheet */
  text: string;
  opened: boolean;
  close: () => void;
  /** resolves when the shelf has this text */
  saved: () => Promise<void>;
  /** put a text on the sheet as one change that undo takes back */
  replace: (text: string) => void;
}

/**
 * Named states of the routine: keep one, bring one back. What stood before is kept first, so nothing is lost.
 *
 * While they are closed they need not hear of every key.
 */
export const Versions = memo(VersionsKept, (before, now) => !before.opened && !now.opened);

function VersionsKept({ id, text, opened, close, saved, replace }: VersionsProps) {
  const client = useQueryClient();
  const { data: versions = [] } = useQuery({ ...versionsQuery(id), enabled: opened });
  const [name, setName] = useState('');
  const [reason, setReason] = useState('');
  const changed = () => client.invalidateQueries({ queryKey: versionsQuery(id).queryKey });
  const keep = useMutation({
    mutationFn: async (called: string) => {
      await saved();
      return api.keepVersion(id, called, reason.trim());
    },
    onSuccess: (version) => {
      setName('');
      setReason('');
      void changed();
      notifications.show({ message: `Kept as “${version.name}”.` });
    },
  });
  const restore = useMutation({
    mutationFn: async (version: Version) => {
      if (!versions.some((other) => other.text === text)) {
        await saved();
        await api.keepVersion(id, `before going back to ${version.name}`);
      }
      replace(version.text);
      return version;
    },
    onSuccess: (version) => {
      void changed();
      close();
      notifications.show({ message: `“${version.name}” is on the sheet again. Undo takes it back.` });
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) keep.mutate(name.trim());
  };
  return (
    <Modal opened={opened} onClose={close} title="Versions" size="lg">
      <form onSubmit={submit}>
        <Group align="end" mb="md">
          <TextInput
            data-autofocus
            label="Keep the sheet as it stands, under a name"
            placeholder="first night"
            maxLength={200}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
            style={{ flex: 1 }}
          />
          <TextInput
            label="Why"
            placeholder="optional"
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
            style={{ flex: 1 }}
          />
          <Button type="submit" loading={keep.isPending} disabled={!name.trim()}>
            Keep
          </Button>
        </Group>
      </form>
      {versions.length === 0 ? (
        <p>No version has been kept yet. Every edit is saved anyway; a version is a state you want to find again.</p>
      ) : (
        <Table verticalSpacing={6}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Version</Table.Th>
              <Table.Th>Kept</Table.Th>
              <Table.Th>Lines</Table.Th>
              <Table.Th />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {versions.map((version) => (
              <Table.Tr key={version.number}>
                <Table.Td>
                  {version.name}
                  {version.reason && <small style={{ display: 'block', color: 'var(--slate)' }}>{version.reason}</small>}
                </Table.Td>
                <Table.Td className="figures">{new Date(version.created_at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}</Table.Td>
                <Table.Td className="figures">{version.text.trimEnd().split('\n').length}</Table.Td>
                <Table.Td ta="right">
                  {version.text === text ? (
                    'on the sheet'
                  ) : (
                    <Button size="compact-sm" variant="default" aria-label={`Bring back ${version.name}`} onClick={() => restore.mutate(version)}>
                      Bring back
                    </Button>
                  )}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
    </Modal>
  );
}
