import { Button, Select, Skeleton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Comparison } from '../../api/client';
import { compareQuery, settingsQuery, versionsQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';

const MARKS = { same: ['', 'the same'], changed: ['≠', 'changed'], added: ['+', 'only in the second'], removed: ['−', 'only in the first'] } as const;

/** Two versions side by side: what each comes to, then line by line. */
export function ComparePanel({ id, text }: { id: number; text: string }) {
  const { data: versions } = useQuery(versionsQuery(id));
  const { data: settings } = useQuery(settingsQuery());
  const [chosen, setChosen] = useState<string | null>(null);
  const go = useNavigate();
  const first = versions?.find((version) => version.text !== text) ?? versions?.[0];
  const version = versions?.find((one) => String(one.number) === chosen) ?? first;
  const { data, ...search } = useSearch(compareQuery(version?.text ?? '', text, settings?.paces), version !== undefined && settings !== undefined);
  if (!versions) return <Skeleton height={300} role="img" aria-label="Fetching the versions" />;
  if (!version)
    return (
      <p>
        No version has been kept yet. On the bench, <b>Versions</b> keeps the sheet as it stands under a name; here it is then compared with what stands now.
      </p>
    );
  return (
    <div className="compare">
      <div className="controls">
        <Select
          size="xs"
          label="Compare"
          w={280}
          data={versions.map((one) => ({ value: String(one.number), label: one.name }))}
          value={String(version.number)}
          allowDeselect={false}
          onChange={setChosen}
        />
        <span>with the sheet as it stands{version.reason && `; made because: ${version.reason}`}</span>
        {version.text !== text && (
          <Button size="compact-sm" variant="default" onClick={() => void go(`/bench/${id}`, { state: { text: version.text } })}>
            Bring {version.name} back
          </Button>
        )}
      </div>
      {data && !search.isFetching ? <SideBySide found={data} name={version.name} /> : <Working search={search} doing="Comparing…" />}
    </div>
  );
}

function SideBySide({ found, name }: { found: Comparison; name: string }) {
  const { left, right } = found;
  const rows: [string, string | number | null, string | number | null][] = [
    ['Verdict', left.headline, right.headline],
    ['Seconds', left.seconds === null ? null : Math.round(left.seconds), right.seconds === null ? null : Math.round(right.seconds)],
    ['Cards handled', left.cards, right.cards],
    ['Decisions of theirs', left.decisions, right.decisions],
    ['Longest silence, cards', left.silent, right.silent],
    ['Slips that do harm', left.harmful, right.harmful],
    ['Slips that do none', left.harmless, right.harmless],
    ['Marks', left.badges.join(', '), right.badges.join(', ')],
  ];
  return (
    <>
      <table className="sides" aria-label="What each comes to">
        <thead>
          <tr>
            <th aria-label="What" />
            <th>{name}</th>
            <th>as it stands</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, one, other]) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>{one ?? '–'}</td>
              <td>{other ?? '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="diff" aria-label="Line by line">
        <tbody>
          {found.rows.map((row, i) => {
            const [mark, words] = MARKS[row.how as keyof typeof MARKS];
            return (
              <tr key={i} className={row.how}>
                <td className="mark" aria-label={words}>
                  {mark}
                </td>
                <td>{row.left}</td>
                <td>{row.right}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
