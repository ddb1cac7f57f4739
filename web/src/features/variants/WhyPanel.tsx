import { Loader } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { explainQuery } from '../../api/queries';
import { ordinal } from '../bench/layout';
import { ToLine, type PanelProps } from './parts';

/** Why it works: what each line does with the card, to be read aloud, and where it lands. */
export function WhyPanel({ text, onLine }: PanelProps) {
  const { data, isFetching } = useQuery(explainQuery(text));
  const found = data?.explanation;
  if (isFetching) return <Loader size="sm" role="img" aria-label="Working it out" />;
  if (!found) return <p className="quiet">There is something to mend on the sheet first.</p>;
  if (!found.said.length && !found.kept.length) return <p className="quiet">No card is followed, so there is nothing to explain line by line.</p>;
  return (
    <>
      <ol className="said">
        {found.said.map((said, i) => (
          <li key={`${said.line} ${i}`}>
            <ToLine line={said.line} onLine={onLine} />
            <span>{said.words}</span>
          </li>
        ))}
      </ol>
      {found.each_time.map((each) => (
        <p key={each.line} className="formula">
          Each time round, a card that was at x comes to <b>{each.formula}</b>.
        </p>
      ))}
      {found.kept.length > 0 && (
        <section aria-label="What stays">
          <h3>What stays</h3>
          <ul>
            {found.kept.map((one) => (
              <li key={`${one.line}`}>
                After <ToLine line={one.line} onLine={onLine} /> {one.words}.
              </li>
            ))}
          </ul>
        </section>
      )}
      {found.cases.length > 0 && (
        <section aria-label="Where it lands">
          <h3>Where it lands</h3>
          <ul>
            {found.cases.map((one) => (
              <li key={`${one.when}`}>
                {one.when ? `If ${one.when}: ` : ''}
                <b>{/^\d+$/.test(one.formula) ? ordinal(Number(one.formula)) : one.formula}</b> in {one.place}
              </li>
            ))}
          </ul>
          <p className="quiet">Checked on every path.</p>
        </section>
      )}
    </>
  );
}
