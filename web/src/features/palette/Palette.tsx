import { Spotlight, openSpotlight, type SpotlightActionGroupData } from '@mantine/spotlight';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { desksQuery, routinesQuery } from '../../api/queries';
import { useAllCommands } from './commands';

export const openPalette = openSpotlight;

/** One place to find everything by name: what the open room can do, its steps, and the routines on the shelf. */
export function Palette() {
  const go = useNavigate();
  const commands = useAllCommands();
  const { data: routines = [] } = useQuery(routinesQuery());
  const { data: desks = [] } = useQuery(desksQuery());
  const groups = new Map<string, SpotlightActionGroupData>();
  const into = (group: string) => {
    const found = groups.get(group) ?? { group, actions: [] };
    groups.set(group, found);
    return found.actions;
  };
  for (const command of commands) {
    into(command.group).push({
      id: command.id,
      label: command.label,
      description: command.description,
      keywords: command.also,
      rightSection: command.keys ? <kbd className="key">{command.keys}</kbd> : undefined,
      onClick: command.run,
    });
  }
  into('Book').push({
    id: 'write performance',
    label: 'Write a performance into the book',
    description: 'what was shown, how it ended, what they chose',
    onClick: () => void go('/book?write'),
  });
  into('Library').push({
    id: 'library',
    label: 'Library of principles',
    description: 'try their numbers, open one as a routine',
    onClick: () => void go('/library'),
  });
  for (const desk of desks) {
    into('Desks').push({ id: `desk ${desk.name}`, label: desk.title, description: desk.about, onClick: () => void go(`/desks/${desk.name}`) });
  }
  for (const routine of routines) {
    into('Routines').push({
      id: `routine ${routine.id}`,
      label: routine.title,
      description: routine.note ?? undefined,
      onClick: () => void go(`/bench/${routine.id}`),
    });
  }
  return (
    <Spotlight
      actions={[...groups.values()]}
      shortcut={['mod + K']}
      highlightQuery
      scrollable
      maxHeight={420}
      nothingFound="Nothing is called that."
      searchProps={{ placeholder: 'Find a step or a routine' }}
      // The sheet is an editable page: the palette must open from inside it as well.
      tagsToIgnore={[]}
      triggerOnContentEditable
    />
  );
}
