import { useElementSize } from '@mantine/hooks';
import type { Frame, Play } from '../../api/client';
import { Scrolling } from '../../ui/Scrolling';
import { CAPTION, CARD_HEIGHT, FACE_UP, ROW_LEFT, captions, cardId, layOut, moved, ordinal, tableInWords, type Heap, type Laid, type Layout } from './layout';
import './table.css';

/** the height it takes from what stands below it, if it needs so much; beyond, it scrolls */
const MOST_TAKEN = 292;

/** Every heap edge on, so that its cards can be counted; what is laid out below; the cards with a name in gold; a mark at those that moved. */
export function TableView({ play, frame, before }: { play: Play; frame: Frame; before: Frame | undefined }) {
  const { ref, width, height } = useElementSize();
  const layout = layOut(play.frames, frame, width || 640, height || 240);
  return (
    <Scrolling ref={ref} className="table-view" name="Cards on the table" style={{ minHeight: Math.min(layout.needs, MOST_TAKEN) }}>
      <svg width={layout.width} height={layout.height} role="img" aria-label={`On the table: ${tableInWords(frame)}`}>
        {layout.heaps.map((heap) => (
          <Ground key={heap.name} heap={heap} layout={layout} names={frame.names} />
        ))}
        {layout.laid.map((laid) => (
          <LaidGround key={laid.name} laid={laid} />
        ))}
        <Cards layout={layout} names={frame.names} odd={new Set(play.odd)} came={moved(frame, before)} />
      </svg>
    </Scrolling>
  );
}

/** Name, size and ticks of a heap. */
function Ground({ heap, layout, names }: { heap: Heap; layout: Layout; names: Record<string, string> }) {
  const size = heap.cards.length;
  const every = layout.pitch * 5 < 13 ? 10 : 5;
  const ticks = Array.from({ length: size }, (_, i) => i + 1).filter((n) => n === 1 || n % every === 0);
  const foot = layout.y(Math.max(size, 1)) + 14;
  const up = heap.cards.filter((card) => card >= FACE_UP).length;
  const counted = size === 0 ? 'empty' : layout.roomy ? `${size} ${size === 1 ? 'card' : 'cards'}${up ? `, ${up} face up` : ''}` : String(size);
  const middle = heap.x + layout.edge / 2;
  return (
    <g className="ground">
      {ticks.map((n) => (
        <g key={n} transform={`translate(${heap.x - 6} ${layout.y(n - 1) + layout.pitch / 2})`}>
          <line x2="-4" />
          <text x="-8" dy="0.35em" textAnchor="end">
            {n}
          </text>
        </g>
      ))}
      {size === 0 && <rect className="bare" x={heap.x} y={layout.top} width={layout.edge} height={6} rx="2" />}
      <text className="name" x={middle} y={foot} textAnchor="middle">
        {heap.name}
      </text>
      <text x={middle} y={foot + 15} textAnchor="middle">
        {counted}
      </text>
      {!layout.roomy &&
        captions(heap.cards, names).map((known, i) => (
          <text key={known} className="known-here" x={middle} y={foot + 29 + i * CAPTION} textAnchor="middle">
            {known}
          </text>
        ))}
    </g>
  );
}

function LaidGround({ laid }: { laid: Laid }) {
  return (
    <g className="ground">
      <text className="name" x={laid.x} y={laid.y + CARD_HEIGHT / 2} dy="0.35em">
        {laid.name}
      </text>
      {laid.spots.map(([left, down], i) =>
        left === 0 || (left + 1) % 5 === 0 ? (
          <text key={i} x={laid.x + ROW_LEFT + left * laid.pitch + laid.pitch / 2 - 2} y={laid.y + down * laid.step + CARD_HEIGHT + 15} textAnchor="middle">
            {i + 1}
          </text>
        ) : null,
      )}
    </g>
  );
}

interface Placed {
  card: number;
  x: number;
  y: number;
  width: number;
  height: number;
  /** where it lies, as said beside its name */
  at: string;
  laidOut: boolean;
}

function placed(layout: Layout, names: Record<string, string>): Placed[] {
  const thick = Math.max(1.2, layout.pitch - Math.min(2, layout.pitch * 0.22));
  const inHeaps = layout.heaps.flatMap((heap) =>
    heap.cards.map((card, i) => ({
      card,
      at: ordinal(i + 1),
      laidOut: false,
      width: layout.edge,
      height: thick,
      y: layout.y(i),
      x: heap.x + (names[String(cardId(card))] ? 12 : 0),
    })),
  );
  const laidOut = layout.laid.flatMap((laid) =>
    laid.cards.map((card, i) => {
      const [left, down] = laid.spots[i] ?? [i, 0];
      return {
        card,
        at: ordinal(i + 1),
        laidOut: true,
        width: Math.max(4, laid.pitch - 4),
        height: CARD_HEIGHT,
        x: laid.x + ROW_LEFT + left * laid.pitch,
        y: laid.y + down * laid.step - (names[String(cardId(card))] ? 4 : 0),
      };
    }),
  );
  return [...inHeaps, ...laidOut].sort((one, other) => cardId(one.card) - cardId(other.card));
}

/** Every card is one element for the whole play, so that a move of it is a movement. */
function Cards({ layout, names, odd, came }: { layout: Layout; names: Record<string, string>; odd: Set<number>; came: Set<number> }) {
  return (
    <g>
      {placed(layout, names).map(({ card, x, y, width, height, at, laidOut }) => {
        const id = cardId(card);
        const name = names[String(id)];
        const up = card >= FACE_UP;
        return (
          <g key={id} className={`card ${name ? 'known' : ''} ${up ? 'up' : ''}`} style={{ transform: `translate(${x}px, ${y}px)` }}>
            <rect width={width} height={height} rx={Math.min(3, height / 2)} />
            {came.has(id) && <path className="came" d={laidOut ? `M3 ${height + 3}h${width - 6}` : `M${width + 3} 1v${Math.max(1, height - 2)}`} />}
            {up && !laidOut && <rect className="face" x={4} y={height * 0.3} width={width - 8} height={height * 0.4} />}
            {up && laidOut && <circle className="pip" cx={width / 2} cy={height / 2} r={Math.min(2.5, width / 4)} />}
            {!up && laidOut && width >= 12 && <path className="hinge" d={`M${width / 2 - 4} ${height / 2 + 6}l4-10 4 10`} />}
            {odd.has(id) && !up && <path className="odd" d={laidOut ? `M3 3l${width - 6} ${height - 6}` : `M-7 ${height / 2 - 3}l5 3-5 3z`} />}
            {name && laidOut && (
              <text x={width / 2} y={-5} textAnchor="middle">
                {name}
              </text>
            )}
            {name && !laidOut && layout.roomy && (
              <text x={width + 6} y={height / 2} dy="0.35em">
                {name} <tspan className="at">{at}</tspan>
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
