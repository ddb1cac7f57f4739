import { Skeleton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { NavLink, useParams } from 'react-router';
import { principlesQuery } from '../../api/queries';
import { Scrolling } from '../../ui/Scrolling';
import { PrincipleView } from './PrincipleView';
import './library.css';

/** Principles that work by themselves: their numbers to be tried, and a routine to begin with. */
export default function LibraryPage() {
  const { name } = useParams();
  const { data: principles, error } = useQuery(principlesQuery());
  if (error) return <p role="alert">{error.message}</p>;
  if (!principles) return <Skeleton height={240} role="img" aria-label="Fetching the library" />;
  const shown = principles.find((one) => one.name === name) ?? principles[0];
  return (
    <div className="library">
      <Scrolling name="Principles" className="principles">
        <h1>The library</h1>
        <ol>
          {principles.map((one) => (
            <li key={one.name}>
              <NavLink to={`/library/${encodeURIComponent(one.name)}`} aria-current={one === shown ? 'page' : undefined}>
                {one.name}
                <small>{one.about}</small>
              </NavLink>
            </li>
          ))}
        </ol>
      </Scrolling>
      {shown && <PrincipleView key={shown.name} principle={shown} />}
    </div>
  );
}
