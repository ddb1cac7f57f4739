import { useElementSize } from '@mantine/hooks';
import type { Frame, Play } from '../../api/client';
import { FACE_UP, cardId, layOut, ordinal, tableInWords, type Heap, type Layout } from './layout';
import './table.css';

/** Every heap edge on, so that its cards can be counted; the cards with a name in gold. */
export function TableView({ play, frame }: { play: Play; frame: Frame }) {
  const { ref, width, height } = useElementSize();
  const layout = layOut(play.frames, frame, width || 640, height || 240);
  return (
    <div ref={ref} className="table-view">
      <svg width={layout.width} height={layout.height} role="img" aria-label={`On the table: ${tableInWords(frame, play.names)}`}>
        {layout.heaps.map((heap) => (
          <Ground key={heap.name} heap={heap} layout={layout} />
        ))}
        <Cards layout={layout} names={play.names} />
      </svg>
    </div>
  );
}

/** Name, size and ticks of a heap. */
function Ground({ heap, layout }: { heap: Heap; layout: Layout }) {
  const size = heap.cards.length;
  const every = layout.pitch * 5 < 13 ? 10 : 5;
  const ticks = Array.from({ length: size }, (_, i) => i + 1).filter((n) => n === 1 || n % 5 === 0);
  const foot = layout.y(Math.max(size, 1)) + 14;
  const up = heap.cards.filter((card) => card >= FACE_UP).length;
  return (
    <g className="ground">
      {ticks.map((n) => (
        <g key={n} transform={`translate(${heap.x - 6} ${layout.y(n - 1) + layout.pitch / 2})`}>
          <line x2="-4" />
          {(n === 1 || n % every === 0) && (
            <text x="-8" dy="0.35em" textAnchor="end">
              {n}
            </text>
          )}
        </g>
      ))}
      {size === 0 && <rect className="bare" x={heap.x} y={layout.top} width={layout.edge} height={6} rx="2" />}
      <text className="name" x={heap.x + layout.edge / 2} y={foot} textAnchor="middle">
        {heap.name}
      </text>
      <text x={heap.x + layout.edge / 2} y={foot + 16} textAnchor="middle">
        {size === 0 ? 'empty' : `${size} ${size === 1 ? 'card' : 'cards'}${up ? `, ${up} face up` : ''}`}
      </text>
    </g>
  );
}

/** Every card is one element for the whole play, so that a move of it is a movement. */
function Cards({ layout, names }: { layout: Layout; names: Record<string, string> }) {
  const cards = layout.heaps.flatMap((heap) => heap.cards.map((card, index) => ({ card, index, heap })));
  cards.sort((one, other) => cardId(one.card) - cardId(other.card));
  const thick = Math.max(1.2, layout.pitch - Math.min(2, layout.pitch * 0.22));
  return (
    <g>
      {cards.map(({ card, index, heap }) => {
        const name = names[String(cardId(card))];
        const up = card >= FACE_UP;
        return (
          <g
            key={cardId(card)}
            className={`card ${name ? 'known' : ''} ${up ? 'up' : ''}`}
            style={{ transform: `translate(${heap.x + (name ? 12 : 0)}px, ${layout.y(index)}px)` }}
          >
            <rect width={layout.edge} height={thick} rx={Math.min(2, thick / 2)} />
            {up && <rect className="face" x={4} y={thick * 0.3} width={layout.edge - 8} height={thick * 0.4} />}
            {name && (
              <text x={layout.edge + 6} y={thick / 2} dy="0.35em">
                {name} <tspan className="at">{ordinal(index + 1)}</tspan>
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
