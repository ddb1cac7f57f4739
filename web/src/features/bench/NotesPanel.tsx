import { Loader } from '@mantine/core';
import { memo } from 'react';
import type { Notes, Odds } from '../../api/client';
import './notes.css';

interface NotesPanelProps {
  notes: Notes | null;
  /** they are of an older text */
  old: boolean;
  /** of the text before while one waits for those of this one */
  odds: Odds | null;
  /** odds are asked for and still being worked out: how far they are, in words; else null */
  waiting: string | null;
  onLine: (line: number) => void;
}

/** Below the sheet: how often it comes out as what, what to keep in mind, and what may truly be said at the end. */
export const NotesPanel = memo(function NotesPanel({ notes, old, odds, waiting, onLine }: NotesPanelProps) {
  const untrue = notes?.recap.filter((said) => !said.true) ?? [];
  const sayable = notes?.recap.filter((said) => said.true) ?? [];
  if (!notes) return null;
  const groups = [...new Set(odds?.chances.map((chance) => chance.about))];
  return (
    <aside className="notes" data-old={old} tabIndex={0} aria-label="Notes on the routine">
      {waiting !== null && !odds && (
        <p className="reckoning" role="status">
          <Loader size={14} /> Working out the odds… {waiting}
        </p>
      )}
      {odds && odds.chances.length > 0 && (
        <details open data-old={waiting !== null}>
          <summary>Odds {waiting !== null && <span className="figures">of the text before; working them out anew… {waiting}</span>}</summary>
          {groups.map((about) => (
            <table key={about} aria-label={`Odds of ${about}`}>
              <caption>{about === 'ending' ? 'How it ends' : about}</caption>
              <tbody>
                {odds.chances
                  .filter((chance) => chance.about === about)
                  .map((chance) => (
                    <tr key={chance.outcome}>
                      <th scope="row">{chance.outcome}</th>
                      <td className="bar" aria-hidden>
                        <span style={{ width: `${Math.max(0.5, chance.most * 100)}%` }} className="most" />
                        <span style={{ width: `${chance.least * 100}%` }} className="least" />
                      </td>
                      <td className="figures">{chance.text}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          ))}
          <p className="small">
            {odds.says}
            {odds.assumes ? ` Taken: ${odds.assumes}.` : ''}
          </p>
        </details>
      )}
      {notes.remembered.length > 0 && (
        <details>
          <summary>
            To remember <span className="figures">{notes.remembered.length}</span>
          </summary>
          <ul>
            {notes.remembered.map((kept) => (
              <li key={kept.name}>
                <b>{kept.name}</b>: from <Line number={kept.learned} onLine={onLine} />, needed in{' '}
                {kept.needed.map((line, i) => (
                  <span key={line}>
                    {i > 0 && ', '}
                    <Line number={line} onLine={onLine} />
                  </span>
                ))}
              </li>
            ))}
          </ul>
        </details>
      )}
      {sayable.length + untrue.length > 0 && (
        <details open={untrue.length > 0}>
          <summary>You may say</summary>
          <ul>
            {untrue.map((said) => (
              <li key={`${said.line}${said.words}`} className="untrue">
                <Line number={said.line ?? 0} onLine={onLine} /> says “{said.words}”, and that is not so.
              </li>
            ))}
            {sayable.map((said) => (
              <li key={said.words}>“{said.words}.”</li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  );
});

function Line({ number, onLine }: { number: number; onLine: (line: number) => void }) {
  return (
    <button type="button" className="to-line" onClick={() => onLine(number)}>
      line {number}
    </button>
  );
}
