import { Table } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { memo, useState, type KeyboardEvent } from 'react';
import type { Frame, Strands } from '../../api/client';
import { axisOf, belongs, columnOf, pathAcross, spotsInWords, spotsOf, type Axis } from './strandsLayout';
import './strands.css';

const MOST_ROWS = 300;
/** edges of a column that are drawn fainter, to tell them apart */
const CROWD = 150;

interface StrandsProps {
  strands: Strands;
  frames: Frame[];
  /** line at which the path that is played gets stuck */
  stuckAt: number | null;
  /** the moment the table shows */
  index: number;
  onMoment: (index: number) => void;
  /** line under the pointer, 0 for none */
  onHover: (line: number) => void;
}

/** All the ways their card travels: a column a step, positions down, weight as thickness, closing to gold. */
export const StrandsView = memo(function StrandsView({ strands, frames, stuckAt, index, onMoment, onHover }: StrandsProps) {
  const { ref, width, height } = useElementSize();
  const [asTable, setAsTable] = useState(false);
  const axis = axisOf(strands, width || 640, height || 200);
  const current = columnOf(axis, frames, index);

  const go = (to: number) => {
    const column = axis.columns[Math.max(0, Math.min(to, axis.columns.length - 1))];
    const moment = column ? frames.findLastIndex((frame) => belongs(column, frame)) : -1;
    if (moment >= 0) onMoment(moment);
  };
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by) {
      event.preventDefault();
      go(current + by);
    }
  };
  const column = axis.columns[current];
  const told = `${strands.card} after ${column?.label}: ${spotsInWords(spotsOf(strands, current))}`;

  return (
    <section className="panel strands-panel" aria-label="Where it can go">
      <header>
        <h2>Where it can go</h2>
        <span className="when figures" role="status">
          {told}
        </span>
        <button type="button" className="as-table" aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
          {asTable ? 'as a picture' : 'as a table'}
        </button>
      </header>
      {asTable ? (
        <div className="strands-table" tabIndex={0} role="region" aria-label="Where it can go, as a table">
          <StrandsTable strands={strands} axis={axis} />
        </div>
      ) : (
        <div
          ref={ref}
          className="strands-view"
          tabIndex={0}
          role="group"
          aria-label="Strands. Left and right arrow move through the columns."
          onKeyDown={onKey}
        >
          <svg width={width || 640} height={height || 200} aria-hidden>
            <Bands axis={axis} />
            {axis.columns.map((place, i) => (
              <g key={i} className={i === current ? 'column here' : 'column'}>
                <line x1={place.x} x2={place.x} y1={22} y2={(height || 200) - 6} />
                <text x={place.x} y={13} textAnchor="middle">
                  {place.label}
                </text>
              </g>
            ))}
            <Edges strands={strands} axis={axis} />
            <Path axis={axis} frames={frames} stuckAt={stuckAt} />
            <Ends strands={strands} axis={axis} />
            {axis.columns.map((place, i) => (
              <rect
                key={i}
                className="catch"
                x={place.x - 16}
                y={0}
                width={32}
                height={height || 200}
                onPointerEnter={() => onHover(place.line)}
                onPointerLeave={() => onHover(0)}
                onClick={() => go(i)}
              />
            ))}
          </svg>
        </div>
      )}
    </section>
  );
});

/** The same without words: at a glance how many ways there are, and whether they meet. */
export function StrandsPicture({ strands, width, height }: { strands: Strands; width: number; height: number }) {
  const axis = axisOf(strands, width, height);
  return (
    <svg className="strands-view strands-picture" width={width} height={height} role="img" aria-label={`All the ways ${strands.card} can go`}>
      {axis.columns.map((place, i) => (
        <g key={i} className="column">
          <line x1={place.x} x2={place.x} y1={22} y2={height - 6} />
        </g>
      ))}
      <Bands axis={axis} />
      <Edges strands={strands} axis={axis} />
      <Ends strands={strands} axis={axis} />
    </svg>
  );
}

function Bands({ axis }: { axis: Axis }) {
  return axis.bands.map((band) => (
    <g key={band.place} className="band">
      <text x={2} y={band.top + Math.min(12, band.height / 2 + 4)} className="place">
        {band.place}
      </text>
      {[1, ...(band.size > 4 ? [band.size] : [])].map((n) => (
        <text key={n} x={axis.columns[0] ? axis.columns[0].x - 10 : 40} y={axis.y({ place: band.place, position: n })} dy="0.35em" textAnchor="end">
          {n}
        </text>
      ))}
    </g>
  ));
}

function curve(x1: number, y1: number, x2: number, y2: number): string {
  const middle = (x1 + x2) / 2;
  return `M${x1} ${y1}C${middle} ${y1} ${middle} ${y2} ${x2} ${y2}`;
}

function Edges({ strands, axis }: { strands: Strands; axis: Axis }) {
  return strands.columns.map((column, i) => {
    const x1 = axis.columns[i]?.x ?? 0;
    const x2 = axis.columns[i + 1]?.x ?? 0;
    const all = column.edges.reduce((sum, edge) => sum + edge.paths, 0) || 1;
    const sure = new Set(column.edges.map((edge) => edge.to && `${edge.to.place} ${edge.to.position}`)).size === 1;
    return (
      <g key={`${column.line} ${column.turn}`} className={column.edges.length > CROWD ? 'crowded' : undefined}>
        {column.edges.map((edge) => {
          const y1 = axis.y(edge.source);
          const to = edge.to ?? { ...edge.source };
          const end = edge.to ? x2 : x1 + (x2 - x1) * 0.4;
          const kind = !edge.can_succeed ? 'fails' : sure && !edge.can_fail ? 'sure' : edge.can_fail ? 'open' : 'good';
          return (
            <g key={`${edge.source.place} ${edge.source.position} ${edge.to?.place} ${edge.to?.position}`} className={`edge ${kind}`}>
              <path d={curve(x1, y1, end, axis.y(to))} strokeWidth={Math.max(0.6, Math.min(4.5, 6 * Math.sqrt(edge.paths / all)))} />
              {!edge.to && <Cross x={end} y={axis.y(to)} />}
            </g>
          );
        })}
      </g>
    );
  });
}

function Cross({ x, y }: { x: number; y: number }) {
  return <path className="cross" d={`M${x - 5} ${y - 5}l10 10m0-10l-10 10`} />;
}

/** At the last column: a gold ring where every path arrives, a cross where they fail. */
function Ends({ strands, axis }: { strands: Strands; axis: Axis }) {
  const last = strands.columns[strands.columns.length - 1];
  const x = axis.columns[axis.columns.length - 1]?.x ?? 0;
  if (!last) return null;
  const spots = spotsOf(strands, strands.columns.length);
  return spots.map((spot) => {
    const here = last.edges.filter((edge) => edge.to?.place === spot.place && edge.to.position === spot.position);
    const fails = here.every((edge) => !edge.can_succeed);
    const sure = spots.length === 1 && last.edges.every((edge) => !edge.can_fail && edge.to);
    if (fails)
      return (
        <g key={spot.place + spot.position} className="edge fails">
          <Cross x={x} y={axis.y(spot)} />
        </g>
      );
    if (!sure) return <circle key={spot.place + spot.position} className="end" cx={x} cy={axis.y(spot)} r={3} />;
    return (
      <g key={spot.place + spot.position} className="pivot">
        <circle cx={x} cy={axis.y(spot)} r={8} />
        <circle className="pin" cx={x} cy={axis.y(spot)} r={3} />
        <text x={x + 13} y={axis.y(spot)} dy="0.35em">
          {spot.position}
        </text>
      </g>
    );
  });
}

function Path({ axis, frames, stuckAt }: { axis: Axis; frames: Frame[]; stuckAt: number | null }) {
  const spots = pathAcross(axis, frames, stuckAt);
  const points = spots.flatMap((spot, i) => (spot ? [{ x: axis.columns[i]?.x ?? 0, y: axis.y(spot) }] : []));
  const d = points.map((p, i) => (i === 0 ? `M${p.x} ${p.y}` : curve(points[i - 1]?.x ?? 0, points[i - 1]?.y ?? 0, p.x, p.y))).join('');
  return (
    <g className="played">
      <path d={d} />
      {points.map((p) => (
        <circle key={p.x} cx={p.x} cy={p.y} r={3.5} />
      ))}
    </g>
  );
}

function StrandsTable({ strands, axis }: { strands: Strands; axis: Axis }) {
  const rows = strands.columns.flatMap((column, i) => column.edges.map((edge) => ({ edge, label: axis.columns[i + 1]?.label ?? '' })));
  return (
    <>
      <Table verticalSpacing={2} stickyHeader className="figures">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Step</Table.Th>
            <Table.Th>From</Table.Th>
            <Table.Th>To</Table.Th>
            <Table.Th>Paths</Table.Th>
            <Table.Th>Ends</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.slice(0, MOST_ROWS).map(({ edge, label }, i) => (
            <Table.Tr key={i}>
              <Table.Td>{label}</Table.Td>
              <Table.Td>{`${edge.source.place} ${edge.source.position}`}</Table.Td>
              <Table.Td>{edge.to ? `${edge.to.place} ${edge.to.position}` : 'cannot go on'}</Table.Td>
              <Table.Td>{edge.paths.toLocaleString('en')}</Table.Td>
              <Table.Td>{!edge.can_succeed ? 'badly' : edge.can_fail ? 'well or badly' : 'well'}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {rows.length > MOST_ROWS && <p>… and {rows.length - MOST_ROWS} more ways.</p>}
    </>
  );
}
