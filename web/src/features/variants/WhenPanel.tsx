import { Button, Loader, Select, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type Sweep } from '../../api/client';
import { holdsQuery, sweepQuery, type SweepAsked } from '../../api/queries';
import { Scrolling } from '../../ui/Scrolling';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { ToLine, type PanelProps } from './parts';

/** When it works: the exact region of choices, and the verdict for other numbers. */
export function WhenPanel(props: PanelProps) {
  return (
    <>
      <Region {...props} />
      <Sweeping {...props} />
    </>
  );
}

function Region({ text, onLine, replace }: PanelProps) {
  const { data, isFetching } = useQuery(holdsQuery(text));
  if (isFetching) return <Loader size="sm" role="img" aria-label="Working it out" />;
  if (!data?.limits) return <p className="quiet">There is something to mend first.</p>;
  const narrowed = data.limits.narrowed;
  return (
    <section aria-label="When it holds">
      <p className="formula">{data.limits.says}</p>
      {data.limits.limits.map((limit) => (
        <ul key={limit.name} className="advice" aria-label={`Keeping ${limit.name} inside`}>
          <li>
            To lead them inside, below <ToLine line={limit.line} onLine={onLine} />: “{limit.steer}”{' '}
            <Button size="compact-xs" variant="subtle" onClick={() => replace(text.split('\n').toSpliced(limit.line, 0, `  “${limit.steer}”`).join('\n'))}>
              Write it
            </Button>
          </li>
          <li>
            {limit.noticed ? (
              <>
                You can tell at <ToLine line={limit.noticed} onLine={onLine} /> that it was not kept.
              </>
            ) : (
              'You never learn whether it was kept.'
            )}
          </li>
          {limit.outside.map((one) => (
            <li key={one.numbers}>
              With {one.numbers}, {one.known}: another ending could begin there.
            </li>
          ))}
        </ul>
      ))}
      {narrowed && (
        <Button size="xs" variant="default" onClick={() => replace(narrowed)}>
          Narrow the ranges to that
        </Button>
      )}
    </section>
  );
}

function Sweeping({ text, numbers, onLine }: PanelProps) {
  const [picked, setPicked] = useState<[string | null, string | null]>([null, null]);
  const [typed, setTyped] = useState(['', '']);
  const [asked, setAsked] = useState<SweepAsked | null>(null);
  const { data, ...search } = useSearch(sweepQuery(asked ?? { text: '', varies: [], domains: {} }), asked !== null);
  const chosen = picked.map((at) => (at === null ? null : (numbers[Number(at)] ?? null)));
  const submit = () => {
    const wanted = chosen.map((one, i) => (one ? { one, words: typed[i] ?? '' } : null)).filter((one) => one !== null);
    // Blanks are numbered as they stand in the text.
    const ordered = wanted.toSorted((a, b) => numbers.indexOf(a.one) - numbers.indexOf(b.one));
    setAsked({
      text,
      varies: ordered.map(({ one }) => ({ line: one.line, start: one.start })),
      domains: Object.fromEntries(ordered.map(({ words }, i) => [String(i + 1), words] as const).filter(([, words]) => words.trim())),
    });
  };
  return (
    <section aria-label="Other numbers">
      <h3>With other numbers</h3>
      <form
        className="bar"
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        {[0, 1].map((i) => (
          <div key={i} className="pair">
            <Select
              size="xs"
              label={i ? 'and this one' : 'Change this number'}
              placeholder={i ? 'none' : 'a number of the routine'}
              searchable
              clearable={i === 1}
              data={numbers.map((one, at) => ({ value: String(at), label: one.label }))}
              value={picked[i] ?? null}
              onChange={(at) => {
                setPicked(i ? [picked[0], at] : [at, picked[1]]);
                const one = at === null ? null : numbers[Number(at)];
                if (one) {
                  onLine(one.line);
                  setTyped(typed.map((words, j) => (j === i ? around(Number(one.value)) : words)));
                }
              }}
            />
            <TextInput
              size="xs"
              w={110}
              label="to each of"
              placeholder="1 to 20"
              disabled={!chosen[i]}
              value={typed[i]}
              onChange={(event) => setTyped(typed.map((words, j) => (j === i ? event.currentTarget.value : words)))}
            />
          </div>
        ))}
        <Button size="xs" variant="default" type="submit" disabled={!chosen[0]}>
          Prove them all
        </Button>
      </form>
      {(search.isFetching || search.error) && <Working search={search} doing="Proving…" />}
      {data?.trouble && <p className="trouble">{data.trouble}</p>}
      {data?.sweep && !search.isFetching && <Picture sweep={data.sweep} />}
    </section>
  );
}

const around = (value: number) => `${Math.max(0, value - 10)} to ${value + 10}`;

const MARKS: Record<string, [string, string]> = {
  proved: ['●', 'proved'],
  fixed: ['●', 'one place'],
  rule: ['●', 'a rule'],
  'one-of': ['◐', 'one of a few'],
  lost: ['✕', 'lost'],
  refuted: ['✕', 'fails'],
  unsettled: ['?', 'not settled'],
  impossible: ['–', 'cannot be done'],
};

/** One square for each case; with two numbers a grid. */
function Picture({ sweep }: { sweep: Sweep }) {
  const [first, second] = sweep.fields;
  const across = second ? second.domain.length : sweep.rows.length;
  const lines = Array.from({ length: Math.ceil(sweep.rows.length / across) }, (_, i) => sweep.rows.slice(i * across, (i + 1) * across));
  const good = sweep.rows.filter((row) => MARKS[row.verdict]?.[0] === '●');
  return (
    <>
      <p className="sum" role="status">
        {good.length} of {sweep.rows.length} cases come out.
        {sweep.formula ? ` The card is at ${sweep.formula}.` : ''}
      </p>
      <Scrolling className="grid-scroll" name="Verdict for each number">
        <table className="sweep" aria-label="Verdict for each number">
          {second && (
            <thead>
              <tr>
                <th />
                {second.domain.map((value) => (
                  <th key={value} scope="col">
                    {value}
                  </th>
                ))}
              </tr>
            </thead>
          )}
          {!second && (
            <thead>
              <tr>
                {sweep.rows.map((row) => (
                  <th key={row.values[0]} scope="col">
                    {row.values[0]}
                  </th>
                ))}
              </tr>
            </thead>
          )}
          <tbody>
            {lines.map((row, i) => (
              <tr key={first?.domain[i] ?? i}>
                {second && <th scope="row">{row[0]?.values[0]}</th>}
                {row.map((cell) => {
                  const [mark, word] =
                    cell.verdict === 'refuted' && cell.share !== 1 ? ['◐', 'fails on some paths'] : (MARKS[cell.verdict] ?? ['?', cell.verdict]);
                  const said = [`${cell.values.join(', ')}: ${word}`, cell.says, cell.landing].filter(Boolean).join(', ');
                  return (
                    <td
                      key={cell.values.join(' ')}
                      className={`cell ${mark === '●' ? 'good' : mark === '✕' ? 'bad' : ''}`}
                      style={
                        mark === '◐' ? { background: `color-mix(in srgb, var(--red-wash) ${Math.round((cell.share ?? 0.5) * 100)}%, transparent)` } : undefined
                      }
                      title={said}
                    >
                      <span role="img" aria-label={said}>
                        {mark}
                      </span>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolling>
      <p className="quiet">● comes out · ◐ on some paths · ✕ fails · – cannot be done</p>
    </>
  );
}
