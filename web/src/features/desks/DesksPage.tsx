import { Skeleton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { NavLink, useParams } from 'react-router';
import type { DeskAsks, DeskName } from '../../api/client';
import { desksQuery } from '../../api/queries';
import { NotFound } from '../../ui/NotFound';
import { MixDesk } from './MixDesk';
import { NarrowDesk } from './NarrowDesk';
import { OddsDesk } from './OddsDesk';
import { PickupDesk } from './PickupDesk';
import { SpellDesk } from './SpellDesk';
import { StackDesk } from './StackDesk';
import './desks.css';

export interface DeskProps<N extends DeskName> {
  opening: DeskAsks[N];
  title: string;
  about: string;
}

/** Six instruments side by side; each opens on a worked example and answers as one types. */
export default function DesksPage() {
  const name = (useParams().name ?? 'spell') as DeskName;
  const { data: desks, error } = useQuery(desksQuery());
  if (error) return <NotFound what={error.message} />;
  if (!desks) return <Skeleton height={300} role="img" aria-label="Opening the desks" />;
  const desk = desks.find((one) => one.name === name);
  return (
    <div className="desks">
      <nav aria-label="Desks" className="desk-names">
        {desks.map((one) => (
          <NavLink key={one.name} to={`/desks/${one.name}`} aria-current={one.name === name ? 'page' : undefined}>
            {one.title}
          </NavLink>
        ))}
      </nav>
      {desk ? <Desk key={name} name={name} asks={desk.asks} title={desk.title} about={desk.about} /> : <NotFound what="There is no such desk." />}
    </div>
  );
}

function Desk({ name, asks, ...words }: { name: DeskName; asks: unknown; title: string; about: string }) {
  switch (name) {
    case 'spell':
      return <SpellDesk opening={asks as DeskAsks['spell']} {...words} />;
    case 'pickup':
      return <PickupDesk opening={asks as DeskAsks['pickup']} {...words} />;
    case 'stack':
      return <StackDesk opening={asks as DeskAsks['stack']} {...words} />;
    case 'mix':
      return <MixDesk opening={asks as DeskAsks['mix']} {...words} />;
    case 'narrow':
      return <NarrowDesk opening={asks as DeskAsks['narrow']} {...words} />;
    case 'odds':
      return <OddsDesk opening={asks as DeskAsks['odds']} {...words} />;
  }
}
