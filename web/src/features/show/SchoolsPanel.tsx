import { Button } from '@mantine/core';
import { useNavigate } from 'react-router';
import { schoolsQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';

/** The routine as performers of other habits would do it, each option proved. */
export function SchoolsPanel({ id, text }: { id: number; text: string }) {
  const { data, ...search } = useSearch(schoolsQuery(text));
  const go = useNavigate();
  if (search.isFetching || !data) return <Working search={search} doing="Proving the other schools…" />;
  if (data.schools === null) return <p>The routine is still being written.</p>;
  if (data.schools.length === 0) return <p>None of the schools known here would do it otherwise.</p>;
  return (
    <div className="compare">
      <table className="sides schools" aria-label="Other schools">
        <thead>
          <tr>
            <th>Instead</th>
            <th>Lines</th>
            <th>What it does</th>
            <th aria-label="Take it" />
          </tr>
        </thead>
        <tbody>
          {data.schools.map((school) => (
            <tr key={school.label}>
              <th scope="row">{school.label}</th>
              <td>{school.lines.join(', ')}</td>
              <td>
                <b>{school.headline}.</b>
                {school.gained.length > 0 && <> Then: {school.gained.join(', ')}.</>}
                {school.lost.length > 0 && <> No longer: {school.lost.join(', ')}.</>}
                {school.repeat && <> {school.repeat}</>}
                {school.shows.length > 0 && <> In sight then: {school.shows.join(', ')}.</>}
                {school.hides.length > 0 && <> No longer in sight: {school.hides.join(', ')}.</>}
                {school.untrue.length > 0 && <> Said, and then not so: {school.untrue.join('; ')}.</>}
              </td>
              <td>
                <Button size="compact-xs" variant="default" onClick={() => void go(`/bench/${id}`, { state: { text: school.text } })}>
                  Write it
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
