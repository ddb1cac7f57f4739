import { Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';

/** Says what was taken away, and for a while offers to take that back. */
export function undoable(what: string, label: string, undo: () => void) {
  const id = notifications.show({
    autoClose: 12_000,
    message: (
      <Group justify="space-between">
        {what}
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            undo();
            notifications.hide(id);
          }}
        >
          {label}
        </Button>
      </Group>
    ),
  });
}
