import { Button, NumberInput, SegmentedControl, Skeleton } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Costs, type Schemas, type Settings } from '../../api/client';
import { costsQuery, settingsQuery } from '../../api/queries';

const PACES: [keyof Schemas['PacesSet'], string][] = [
  ['card', 'a card dealt'],
  ['step', 'an action'],
  ['decision', 'a choice of theirs'],
  ['word', 'a word said'],
  ['sum', 'a sum in the head'],
  ['count', 'a card counted in the hands'],
  ['look', 'a card looked at'],
];

/** What it costs: time, silence, memory, sums, table; what shows; what is said and not so. */
export function CostsPanel({ text }: { text: string }) {
  const [card, setCard] = useState<'poker' | 'bridge'>('poker');
  const [overlap, setOverlap] = useState(0);
  const [table, setTable] = useState(600);
  const [thick, setThick] = useState(13);
  const { data: settings } = useQuery(settingsQuery());
  const { data, error } = useQuery({ ...costsQuery({ text, card, overlap: overlap / 100, table, thick }, settings?.paces), enabled: settings !== undefined });
  if (error) return <p role="alert">{error.message}</p>;
  if (!data || !settings) return <Skeleton height={420} aria-label="Reckoning" />;
  const costs = data.costs;
  if (!costs) return <p>The routine is still being written, or too large to be reckoned.</p>;
  return (
    <div className="costs">
      <section aria-label="Effort">
        <h2>Effort</h2>
        <p className="sum-up">
          <b>{Math.round(costs.effort.seconds)} seconds</b>, {counted(costs.effort.cards, 'card')} handled in {counted(costs.effort.deals, 'deal')}, {counted(costs.effort.decisions, 'decision')} of theirs; the longest silence is {counted(costs.effort.silent, 'card')}. Of all paths, the one that handles most.
        </p>
        <Lines costs={costs} />
        {costs.effort.sums.length > 0 && (
          <ul>
            {costs.effort.sums.map((sum) => (
              <li key={`${sum.line} ${sum.words}`}>
                Line {sum.line}: you reckon <b>{sum.words}</b>, {sum.hard}.
              </li>
            ))}
            {costs.effort.thinking.map((one) => (
              <li key={`${one.name} ${one.learned}`}>
                You learn {one.name} in line {one.learned} and need it in line {one.needed}: {one.lines === 0 ? 'at once' : `${Math.round(one.seconds)} seconds and ${one.lines} lines lie between`}.
              </li>
            ))}
          </ul>
        )}
        <Paces key={JSON.stringify(settings.paces)} settings={settings} />
      </section>
      <section aria-label="The table">
        <h2>On the table</h2>
        <div className="controls">
          <SegmentedControl aria-label="Cards" size="xs" data={['poker', 'bridge']} value={card} onChange={(size) => setCard(size as 'poker' | 'bridge')} />
          <NumberInput size="xs" w={130} label="Table, mm wide" value={table} min={100} max={5000} step={50} onChange={(now) => typeof now === 'number' && now >= 100 && setTable(now)} />
          <NumberInput size="xs" w={150} label="Cards of a row overlap, %" value={overlap} min={0} max={90} step={5} onChange={(now) => typeof now === 'number' && setOverlap(now)} />
        </div>
        <p className={costs.room.fits ? 'sum-up' : 'sum-up broken'}>
          {costs.room.fits ? 'It fits: ' : 'It does not fit: '}
          <b>{Math.round(costs.room.width)} mm</b> at its widest{costs.room.line ? `, in line ${costs.room.line}` : ''}. {costs.room.remedy}
        </p>
        <Room costs={costs} table={table} />
      </section>
      <section aria-label="What can be seen">
        <h2>What can be seen</h2>
        <div className="controls">
          <NumberInput size="xs" w={210} label="A packet looks thick from, cards" value={thick} min={2} max={60} onChange={(now) => typeof now === 'number' && now >= 2 && setThick(now)} />
        </div>
        <table className="seen">
          <thead>
            <tr>
              <th>After line</th>
              <th>Everybody: faces</th>
              <th>Everybody: odd backs, writing</th>
              <th>Only who helps</th>
              <th>Only you</th>
              <th>Take care</th>
            </tr>
          </thead>
          <tbody>
            {costs.exposure.moments.map((moment, i) => (
              <tr key={i}>
                <td>{moment.line || 'the beginning'}</td>
                <td>{moment.faces.join(', ') || 'none'}</td>
                <td>{[...moment.odd_backs, ...moment.writing].join(', ') || 'none'}</td>
                <td>{moment.theirs.join(', ')}</td>
                <td>{moment.yours.join(', ')}</td>
                <td>{moment.note}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {costs.exposure.turned_away.length > 0 && (
          <p>
            You look away in {costs.exposure.turned_away.map(([first, last]) => (first === last ? `line ${first}` : `lines ${first} to ${last}`)).join(' and ')}.
          </p>
        )}
      </section>
      <section aria-label="What is said">
        <h2>What is said</h2>
        {costs.wording.length === 0 ? (
          <p>Nothing that can be checked is untrue on any path.</p>
        ) : (
          <ul className="broken">
            {costs.wording.map((one, i) => (
              <li key={i}>
                Line {one.line}: <b>“{one.said}”</b>. {one.why}
              </li>
            ))}
          </ul>
        )}
        <p className="quiet">Numbers of face-up cards, positions and names in braces are proved on every path. End a line with (untrue) where you mean to mislead.</p>
      </section>
    </div>
  );
}

const counted = (many: number, what: string) => `${many} ${what}${many === 1 ? '' : 's'}`;

function Lines({ costs }: { costs: Costs }) {
  const longest = Math.max(1, ...costs.effort.lines.map((line) => line.seconds));
  return (
    <table className="line-costs" aria-label="Line by line">
      <thead>
        <tr>
          <th>Line</th>
          <th>Cards</th>
          <th>Seconds</th>
          <th aria-label="Share" />
          <th>In your head</th>
        </tr>
      </thead>
      <tbody>
        {costs.effort.lines.map((line) => (
          <tr key={line.line}>
            <td>{line.line}</td>
            <td>{line.cards || ''}</td>
            <td>{line.seconds}</td>
            <td>
              <span className="bar" style={{ width: `${(100 * line.seconds) / longest}px` }} />
            </td>
            <td>{line.remembers.join(', ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The widest layout, to scale, on the table. */
function Room({ costs, table }: { costs: Costs; table: number }) {
  const { pieces, height, width } = costs.room;
  const whole = Math.max(table, width) + 40;
  return (
    <svg className="room" viewBox={`0 0 ${whole} ${height + 70}`} role="img" aria-label={`The widest layout: ${pieces.map((piece) => `${piece.name}, ${piece.cards} cards`).join('; ')}`}>
      <rect x={20} y={10} width={table} height={height + 50} rx={8} className="cloth" />
      {pieces.map((piece) => (
        <g key={piece.name}>
          <rect x={20 + piece.left + Math.max(0, (table - width) / 2)} y={24} width={piece.width} height={height} rx={4} className={piece.left + piece.width > table ? 'heap over' : 'heap'} />
          <text x={26 + piece.left + Math.max(0, (table - width) / 2)} y={44} fontSize={15}>
            {piece.name}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Paces({ settings }: { settings: Settings }) {
  const client = useQueryClient();
  const [paces, setPaces] = useState(settings.paces as Schemas['PacesSet']);
  const save = useMutation({
    mutationFn: () => api.changeSettings({ ...settings, paces }),
    onSuccess: (now) => client.setQueryData(settingsQuery().queryKey, now),
  });
  return (
    <details className="paces">
      <summary>Your paces, in seconds</summary>
      <div className="controls">
        {PACES.map(([pace, label]) => (
          <NumberInput key={pace} size="xs" w={150} label={label} value={paces[pace]} min={0} max={60} step={0.1} onChange={(now) => typeof now === 'number' && setPaces({ ...paces, [pace]: now })} />
        ))}
        <Button size="xs" variant="default" loading={save.isPending} onClick={() => save.mutate()}>
          Reckon with these
        </Button>
      </div>
      {save.error && <p role="alert">{save.error.message}</p>}
    </details>
  );
}
