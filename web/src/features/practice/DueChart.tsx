import { dueDays } from './dueDays';

/** The coming two weeks: how many questions fall due on each day, as a picture and as a table. */
export function DueChart({ due }: { due: (string | null | undefined)[] }) {
  const now = new Date();
  const days = dueDays(due, now);
  const most = Math.max(...days, 1);
  const label = (at: number) =>
    at === 0 ? 'today' : new Date(now.getFullYear(), now.getMonth(), now.getDate() + at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });
  if (days.every((one) => one === 0)) return null;
  return (
    <section aria-label="When they fall due">
      <h2>When they fall due</h2>
      <svg
        viewBox="0 0 560 90"
        className="due-chart"
        role="img"
        aria-label={days
          .map((many, at) => (many ? `${label(at)} ${many}` : ''))
          .filter(Boolean)
          .join('; ')}
      >
        {days.map((many, at) => (
          <g key={at}>
            <rect x={at * 40 + 6} width={28} y={62 - (50 * many) / most} height={(50 * many) / most} />
            {many > 0 && (
              <text x={at * 40 + 20} y={58 - (50 * many) / most}>
                {many}
              </text>
            )}
            <text x={at * 40 + 20} y={80}>
              {at % 2 === 0 ? label(at) : ''}
            </text>
          </g>
        ))}
        <line x1={0} x2={560} y1={62.5} y2={62.5} />
      </svg>
      <details>
        <summary>As a table</summary>
        <table>
          <tbody>
            {days.map((many, at) => (
              <tr key={at}>
                <th scope="row">{at === days.length - 1 ? `${label(at)} and later` : label(at)}</th>
                <td className="figures">{many}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}
