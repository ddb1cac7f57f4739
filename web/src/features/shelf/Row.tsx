import { ActionIcon, Button, Group, Menu } from '@mantine/core';
import { IconArchive, IconDots, IconPinned, IconTag, IconTrash } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Found, Practised, Routine, Standing } from '../../api/client';
import { glimpseQuery } from '../../api/queries';
import { VerdictMark, toneOf } from '../bench/VerdictBar';
import { ago } from '../practice/ago';

/** How a routine is to stand, and how it stood where that is offered again. */
export interface Stood {
  routine: Routine;
  change: Standing;
  back?: Standing;
}

export interface OfRow {
  onRemove: (routine: Routine) => void;
  onStanding: (stood: Stood) => void;
  onTags: (routine: Routine) => void;
}

interface RowProps extends OfRow {
  routine: Routine;
  found: Found | undefined;
  worked: Practised | undefined;
}

/** A routine on the shelf: its verdict, its badges and tags, the ways of its card, and what can be done with it. */
export const Row = memo(function Row({ routine, found, worked, onRemove, onStanding, onTags }: RowProps) {
  return (
    <li className="panel">
      <VerdictMark tone={toneOf(found)} size={26} />
      <div>
        <Link to={`/bench/${routine.id}`} className="open">
          {routine.title}
        </Link>
        {routine.pinned && <IconPinned className="pinned" size={17} role="img" aria-label="pinned" />}
        {routine.note && <p className="note">{routine.note}</p>}
        {routine.unread && <p className="note">{routine.unread}</p>}
        <p className="says figures">{found?.says ?? 'Proving…'}</p>
        <Worked of={worked} />
        {routine.badges.length + routine.tags.length > 0 && (
          <p className="badges">
            <span>{routine.badges.join(' · ')}</span>
            {routine.tags.map((tag) => (
              <span key={tag} className="tag">
                {tag}
              </span>
            ))}
          </p>
        )}
      </div>
      <div className="item-side">
        <Group gap={4} className="item-tools" wrap="nowrap">
          <Button
            variant="subtle"
            color="gray"
            size="compact-sm"
            component={Link}
            to={`/practice/${routine.id}?tab=rehearse`}
            aria-label={`Rehearse ${routine.title}`}
          >
            Rehearse
          </Button>
          <Button variant="subtle" color="gray" size="compact-sm" component={Link} to={`/book?write=${routine.id}`} aria-label={`Write down ${routine.title}`}>
            Write down
          </Button>
          <Button variant="subtle" color="gray" size="compact-sm" component={Link} to={`/show/${routine.id}`} aria-label={`Show ${routine.title}`}>
            Show
          </Button>
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon variant="subtle" color="gray" aria-label={`More for ${routine.title}`}>
                <IconDots size={18} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item leftSection={<IconPinned size={15} />} onClick={() => onStanding({ routine, change: { pinned: !routine.pinned } })}>
                {routine.pinned ? 'Unpin' : 'Pin to the top'}
              </Menu.Item>
              <Menu.Item leftSection={<IconTag size={15} />} onClick={() => onTags(routine)}>
                Tags…
              </Menu.Item>
              <Menu.Item
                leftSection={<IconArchive size={15} />}
                onClick={() => onStanding({ routine, change: { put_away: !routine.put_away }, back: routine.put_away ? undefined : { put_away: false } })}
              >
                {routine.put_away ? 'Take out again' : 'Put away'}
              </Menu.Item>
              <Menu.Item leftSection={<IconTrash size={15} />} onClick={() => onRemove(routine)}>
                Remove
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </Group>
        {found?.verdict && <Glimpse of={routine} />}
      </div>
    </li>
  );
});

/** The ways of its card at a glance. */
function Glimpse({ of }: { of: Routine }) {
  const { data } = useQuery(glimpseQuery(of));
  // Drawn by our own server, which escapes every word in it.
  return <div className="glimpse">{data?.picture && <div dangerouslySetInnerHTML={{ __html: data.picture }} />}</div>;
}

/** When it was last shown and rehearsed, and what of it is due. */
function Worked({ of }: { of: Practised | undefined }) {
  if (!of) return null;
  const said = [
    of.last_shown && `shown ${ago(of.last_shown)}`,
    of.last_rehearsed && `rehearsed ${ago(of.last_rehearsed)}`,
    of.due > 0 && `${of.due} to drill today`,
  ].filter(Boolean);
  return said.length ? <p className="worked">{said.join(' · ')}</p> : null;
}
