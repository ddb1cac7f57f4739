import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type Costs, type Schemas, type Settings } from '../../api/client';
import { costsQuery, settingsQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { TOLD_HERE } from '../../api/queryClient';

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
  const [surface, setSurface] = useState<Schemas['SurfaceIn']>({ size: 'poker', overlap: 0, table: 600, depth: 400, rows: 1 });
  const [thick, setThick] = useState(13);
  const { data: settings } = useQuery(settingsQuery());
  const { data, ...search } = useSearch(costsQuery({ text, surface, thick }, settings?.paces), settings !== undefined);
  if (!data || !settings || search.error) return <Working search={search} doing="Reckoning…" />;
  const costs = data.costs;
  if (!costs) return <p>The routine is still being written, or too large to be reckoned.</p>;
  return (
    <div className="costs">
      <section aria-label="Effort">
        <h2>Effort</h2>
        <p className="sum-up">
          <b>{Math.round(costs.effort.seconds)} seconds</b>, {counted(costs.effort.cards, 'card')} handled in {counted(costs.effort.deals, 'deal')},{' '}
          {counted(costs.effort.decisions, 'decision')} of theirs; the longest silence is {counted(costs.effort.silent, 'card')}. Of all paths, the one that
          handles most.
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
                You learn {one.name} in line {one.learned} and need it in line {one.needed}:{' '}
                {one.lines === 0 ? 'at once' : `${Math.round(one.seconds)} seconds and ${one.lines} lines lie between`}.
              </li>
            ))}
          </ul>
        )}
        <Paces key={JSON.stringify(settings.paces)} settings={settings} />
      </section>
      <section aria-label="The table">
        <h2>On the table</h2>
        <div className="controls">
          <SegmentedControl
            aria-label="Cards"
            size="xs"
            data={['poker', 'bridge']}
            value={surface.size}
            onChange={(size) => setSurface({ ...surface, size: size })}
          />
          <NumberInput
            size="xs"
            w={115}
            label="Table, mm wide"
            value={surface.table}
            min={100}
            max={5000}
            step={50}
            onChange={(now) => typeof now === 'number' && now >= 100 && setSurface({ ...surface, table: now })}
          />
          <NumberInput
            size="xs"
            w={95}
            label="mm deep"
            value={surface.depth}
            min={90}
            max={3000}
            step={50}
            onChange={(now) => typeof now === 'number' && now >= 90 && setSurface({ ...surface, depth: now })}
          />
          <NumberInput
            size="xs"
            w={125}
            label="A row overlaps, %"
            value={Math.round(100 * surface.overlap)}
            min={0}
            max={90}
            step={5}
            onChange={(now) => typeof now === 'number' && setSurface({ ...surface, overlap: now / 100 })}
          />
          <NumberInput
            size="xs"
            w={95}
            label="Laid in rows"
            value={surface.rows}
            min={1}
            max={6}
            onChange={(now) => typeof now === 'number' && now >= 1 && setSurface({ ...surface, rows: now })}
          />
        </div>
        <p className={costs.room.fits ? 'sum-up' : 'sum-up broken'}>
          {costs.room.fits ? 'It fits: ' : 'It does not fit: '}
          <b>{Math.round(costs.room.width)} mm</b> at its widest, {Math.round(costs.room.height)} mm deep{costs.room.line ? `, in line ${costs.room.line}` : ''}
          . {costs.room.remedy}
        </p>
        <Room costs={costs} surface={surface} />
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
        <p className="quiet">
          Numbers of cards, faces, positions, predictions and names in braces are proved on every path. End a line with (untrue) where you mean to mislead.
        </p>
      </section>
      <section aria-label="What can be seen">
        <h2>What can be seen</h2>
        <div className="controls">
          <NumberInput
            size="xs"
            w={210}
            label="A packet looks thick from, cards"
            value={thick}
            min={2}
            max={60}
            onChange={(now) => typeof now === 'number' && now >= 2 && setThick(now)}
          />
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
            You look away in {costs.exposure.turned_away.map(([first, last]) => (first === last ? `line ${first}` : `lines ${first} to ${last}`)).join(' and ')}
            .
          </p>
        )}
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

/** What lies there when it takes most room, to scale, on the table. */
function Room({ costs, surface }: { costs: Costs; surface: Schemas['SurfaceIn'] }) {
  const { pieces, height, width, card_width, card_height } = costs.room;
  const middle = Math.max(0, (surface.table - width) / 2);
  return (
    <svg
      className="room"
      viewBox={`0 0 ${Math.max(surface.table, width) + 40} ${Math.max(surface.depth, height + 10) + 30}`}
      role="img"
      aria-label={`When it takes most room: ${pieces.map((piece) => `${piece.name}, ${piece.cards} cards`).join('; ')}`}
    >
      <rect x={20} y={10} width={surface.table} height={surface.depth} rx={8} className="cloth" />
      {pieces.map((piece, i) => {
        const over = middle + piece.left + piece.width > surface.table || piece.top + piece.height > surface.depth;
        return (
          <g key={i}>
            {piece.spots.map(([across, down], k) => (
              <rect
                key={k}
                x={20 + middle + piece.left + across}
                y={10 + piece.top + down}
                width={card_width}
                height={card_height}
                rx={4}
                className={over ? 'heap over' : 'heap'}
              />
            ))}
            <text x={26 + middle + piece.left} y={32 + piece.top} fontSize={15}>
              {piece.name}
              {piece.spots.length === piece.cards ? '' : ` ${piece.cards}`}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

function Paces({ settings }: { settings: Settings }) {
  const client = useQueryClient();
  const [paces, setPaces] = useState(settings.paces as Schemas['PacesSet']);
  const save = useMutation({
    ...TOLD_HERE,
    mutationFn: () => api.changeSettings({ ...settings, paces }),
    onSuccess: (now) => client.setQueryData(settingsQuery().queryKey, now),
  });
  return (
    <details className="paces">
      <summary>Your paces, in seconds</summary>
      <div className="controls">
        {PACES.map(([pace, label]) => (
          <NumberInput
            key={pace}
            size="xs"
            w={150}
            label={label}
            value={paces[pace]}
            min={0}
            max={60}
            step={0.1}
            onChange={(now) => typeof now === 'number' && setPaces({ ...paces, [pace]: now })}
          />
        ))}
        <Button size="xs" variant="default" loading={save.isPending} onClick={() => save.mutate()}>
          Reckon with these
        </Button>
      </div>
      {save.error && <p role="alert">{save.error.message}</p>}
    </details>
  );
}
