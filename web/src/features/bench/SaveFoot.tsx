import { Button, Group, Modal } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { memo, useState } from 'react';
import { Link } from 'react-router';
import '../keep/keep.css';
import type { Conflict, Saved } from './saver';

/** What is said of saving at the foot of the sheet: that it is saved, or what keeps it from being saved. */
export const SaveWords = memo(function SaveWords({ saved, gone }: { saved: Saved; gone: boolean }) {
  if (gone) return <span>This routine was taken off the shelf in another window. It lies under Keep.</span>;
  if (saved.state === 'saved') return <span>Saved</span>;
  if (saved.state === 'conflict') return <span>Two texts: choose above</span>;
  const held = saved.drafted
    ? 'This browser keeps it as a draft until it is saved.'
    : 'This browser has no room to keep it: do not close the window before it is saved.';
  if (saved.state === 'saving') return <span>Saving…{saved.drafted ? '' : ` ${held}`}</span>;
  return (
    <span>
      <b>Not saved.</b> {saved.trouble} {held} <Link to="/keep">Keep</Link>
    </span>
  );
});

interface TwoTextsProps {
  conflict: Conflict;
  keepMine: () => Promise<void>;
  takeOther: () => Promise<void>;
}

/** Two texts of one routine: both are shown, one is chosen, none is lost. */
export function TwoTexts({ conflict, keepMine, takeOther }: TwoTextsProps) {
  const [shown, setShown] = useState(false);
  const draft = conflict.from === 'draft';
  const typed = conflict.at ? ` of ${new Date(conflict.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}` : '';
  const title = draft ? `A draft${typed} was never saved, and the shelf has a newer text` : 'This routine was changed in another window';
  const mine = draft ? 'Take the draft' : 'Keep mine';
  const other = draft ? 'Leave the draft' : 'Take the other';
  const choose = (act: () => Promise<void>) => () => {
    setShown(false);
    act().catch((error: unknown) => notifications.show({ color: 'red', title: 'Nothing was changed', message: error instanceof Error ? error.message : '' }));
  };
  const buttons = (
    <>
      <Button size="compact-sm" variant="default" onClick={choose(keepMine)}>
        {mine}
      </Button>
      <Button size="compact-sm" variant="default" onClick={choose(takeOther)}>
        {other}
      </Button>
    </>
  );
  return (
    <section className="choose-text" role="alert">
      <b>{title}.</b>
      <Group gap="xs">
        Nothing is lost: the text you do not take becomes a version.
        <Button size="compact-sm" variant="default" onClick={() => setShown(true)}>
          Show both
        </Button>
        {buttons}
      </Group>
      <Modal opened={shown} onClose={() => setShown(false)} title="Two texts" size="80rem">
        <div className="two-texts">
          <section aria-label={draft ? 'The draft' : 'Mine'}>
            <h3>{draft ? 'The draft' : 'In this window'}</h3>
            <Rows text={conflict.mine} beside={conflict.other.text} />
          </section>
          <section aria-label="On the shelf">
            <h3>On the shelf</h3>
            <Rows text={conflict.other.text} beside={conflict.mine} />
          </section>
        </div>
        <Group justify="end" mt="md">
          {buttons}
        </Group>
      </Modal>
    </section>
  );
}

/** The lines of a text; those that the other one has not are marked. */
export function Rows({ text, beside }: { text: string; beside: string }) {
  const known = new Set(beside.split('\n'));
  return (
    <pre className="rows" tabIndex={0}>
      {text
        .trimEnd()
        .split('\n')
        .map((row, i) =>
          known.has(row) ? (
            <span key={i}>{row || ' '}</span>
          ) : (
            <mark key={i} title="only here">
              {row || ' '}
            </mark>
          ),
        )}
    </pre>
  );
}
