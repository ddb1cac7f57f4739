import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { solveQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { ToLine, type PanelProps } from './parts';

/** What would work: every way to fill the blanks with which all claims hold. */
export function WouldPanel({ text, blanks, onLine, replace }: PanelProps) {
  const [typed, setTyped] = useState<Record<number, string>>({});
  const [asked, setAsked] = useState<Record<string, string>>({});
  const { data, ...search } = useSearch(solveQuery(text, asked), blanks.length > 0);
  if (!blanks.length)
    return (
      <p className="quiet">
        Write <b>?</b> in place of a number, a position, an order or a word, and every way to fill it appears here. The routine needs an ending to make true.
      </p>
    );
  const found = data?.solution;
  const submit = () => setAsked(Object.fromEntries(Object.entries(typed).filter(([, words]) => words.trim())));
  return (
    <>
      {data?.trouble && <p className="trouble">{data.trouble}</p>}
      <form
        className="bar"
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        {blanks.map((line, i) => (
          <TextInput
            key={i + 1}
            size="xs"
            w={150}
            label={`Blank ${i + 1}, line ${line}`}
            placeholder={shown(found?.fields[i]?.domain ?? []) || 'what to try'}
            value={typed[i + 1] ?? ''}
            onChange={(event) => setTyped({ ...typed, [i + 1]: event.currentTarget.value })}
          />
        ))}
        <Button size="xs" variant="default" type="submit">
          Try these
        </Button>
      </form>
      {(search.isFetching || search.error) && <Working search={search} doing="Filling the blanks…" />}
      {found && !search.isFetching && (
        <>
          <p className="sum" role="status">
            {found.says}
            {found.relation ? ` In all of them ${found.relation}.` : ''}
          </p>
          <table className="slips" aria-label="Answers">
            <thead>
              <tr>
                {found.fields.map((field) => (
                  <th key={field.number}>
                    <ToLine line={field.line} onLine={onLine} />
                  </th>
                ))}
                <th aria-label="Take it" />
              </tr>
            </thead>
            <tbody>
              {found.answers.map((answer) => (
                <tr key={answer.values.join(' ')}>
                  {answer.values.map((value, i) => (
                    <td key={i} className="figures">
                      {value}
                    </td>
                  ))}
                  <td>
                    <Button size="compact-xs" variant="subtle" onClick={() => replace(answer.text)}>
                      Write it
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {found.near.length > 0 && (
            <p className="quiet">
              {found.near.map((near) => (
                <span key={near.values.join(' ')} className="near">
                  Not {near.values.join(', ')}: {near.says}.
                </span>
              ))}
            </p>
          )}
        </>
      )}
    </>
  );
}

function shown(domain: string[]): string {
  const numbers = domain.every((value) => /^\d+$/.test(value));
  if (numbers && domain.length > 2) return `${domain[0]} to ${domain.at(-1)}`;
  return domain.slice(0, 4).join(', ') + (domain.length > 4 ? ' …' : '');
}
