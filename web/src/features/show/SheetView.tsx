import type { Schemas, SheetDocument } from '../../api/client';

type Part = SheetDocument['parts'][number];

/** A sheet as it will be printed: large type, black on white, everything in words. */
export function SheetView({ sheet }: { sheet: SheetDocument }) {
  return (
    <article className="paper">
      <h2>
        {sheet.title} <small>{sheet.subtitle}</small>
      </h2>
      {sheet.warning && <p className="warning">{sheet.warning}</p>}
      {sheet.parts.map((part, i) => (
        <PartView key={i} part={part} />
      ))}
    </article>
  );
}

function PartView({ part }: { part: Part }) {
  switch (part.kind) {
    case 'heading':
      return <h3>{part.words}</h3>;
    case 'paragraph':
      return <p>{part.words}</p>;
    case 'items':
      return part.numbered ? (
        <ol>
          {part.rows.map((row, i) => (
            <li key={i}>{row}</li>
          ))}
        </ol>
      ) : (
        <ul>
          {part.rows.map((row, i) => (
            <li key={i}>{row}</li>
          ))}
        </ul>
      );
    case 'grid':
      return (
        <table>
          <thead>
            <tr>
              {part.head.map((cell, i) => (
                <th key={i}>{cell}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {part.rows.map((row, i) => (
              <tr key={i}>
                {row.map((cell, j) => (
                  <td key={j}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      );
    case 'cards':
      return (
        <ol className="cards">
          {part.rows.map(([position, name]) => (
            <li key={position} value={position}>
              <span>{name}</span>
              <small>{position}</small>
            </li>
          ))}
        </ol>
      );
    case 'beat':
      return <BeatView beat={part} />;
    default:
      return null;
  }
}

function BeatView({ beat }: { beat: Schemas['Beat'] }) {
  return (
    <div className={`beat${beat.ending ? ' ending' : ''}`} style={{ marginLeft: 26 * beat.level }}>
      <span className="number">{beat.number || '▸'}</span>
      <div>
        <p className={beat.spectator ? 'action theirs' : 'action'}>{beat.action}</p>
        {beat.says.map((words, i) => (
          <p key={i} className="says">
            “{words}”
          </p>
        ))}
        {beat.marks.length > 0 && <p className="marks">{beat.marks.join(' · ')}</p>}
        {beat.watch.map((words, i) => (
          <p key={i} className="marks">
            Watch: {words}
          </p>
        ))}
        {beat.gap && <p className="gap">{beat.suggested ? <>nothing is said here; for instance: “{beat.suggested}”</> : 'nothing is said here'}</p>}
      </div>
    </div>
  );
}
