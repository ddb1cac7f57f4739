import { Button, Group, Modal, TagsInput } from '@mantine/core';
import { useState } from 'react';
import type { Routine } from '../../api/client';

interface TagsProps {
  routine: Routine;
  /** those that other routines have */
  known: string[];
  onTags: (tags: string[]) => void;
  close: () => void;
}

/** The tags of a routine: one's own words to find it by. */
export function TagsOf({ routine, known, onTags, close }: TagsProps) {
  const [tags, setTags] = useState(routine.tags);
  return (
    <Modal opened onClose={close} title={`Tags of ${routine.title}`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onTags(tags);
          close();
        }}
      >
        <TagsInput
          data-autofocus
          label="Tags"
          description="Your own words to find it by. Enter after each."
          value={tags}
          onChange={setTags}
          data={known}
          acceptValueOnBlur
          maxTags={20}
        />
        <Group justify="flex-end" mt={16}>
          <Button variant="default" onClick={close}>
            Leave it
          </Button>
          <Button type="submit">Keep</Button>
        </Group>
      </form>
    </Modal>
  );
}
