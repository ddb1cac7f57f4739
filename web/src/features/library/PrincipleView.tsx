import { Button, Loader, Slider } from '@mantine/core';
import { useDebouncedValue, useElementSize } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type Schemas } from '../../api/client';
import { explainQuery, holdsQuery, notesQuery, principleTextQuery, proveQuery, routinesQuery, strandsQuery } from '../../api/queries';
import { StrandsPicture } from '../bench/StrandsView';
import { VerdictMark, toneOf } from '../bench/VerdictBar';
import { Scrolling } from '../../ui/Scrolling';
import { triedWords, type Tried } from './tried';

type Principle = Schemas['PrincipleOut'];

const CAME = { sure: 'works', broken: 'fails', open: 'open', writing: 'fails' } as const;

const isSame = (one: Record<string, number>, other: Record<string, number>) => Object.keys(one).every((name) => one[name] === other[name]);

/** What came of these numbers, where it is known by now. */
function triedOf(client: QueryClient, name: string, values: Record<string, number>): Tried | undefined {
  const text = client.getQueryData(principleTextQuery(name, values).queryKey)?.text;
  const proof = text === undefined ? undefined : client.getQueryData(proveQuery(text, 'interactive').queryKey);
  if (!proof) return undefined;
  return { values, came: CAME[toneOf(proof.verdict)] };
}

/** One principle: its numbers, what comes of them at once, why, and how far it goes. */
export function PrincipleView({ principle }: { principle: Principle }) {
  const first = Object.fromEntries(principle.parameters.map((one) => [one.name, one.at]));
  const [values, setValues] = useState(first);
  const [asked] = useDebouncedValue(values, 120);
  const { data: text } = useQuery(principleTextQuery(principle.name, asked));
  const [visited, setVisited] = useState([first]);
  const go = useNavigate();
  const client = useQueryClient();
  const open = useMutation({
    mutationFn: api.add,
    onSuccess: (routine) => {
      void client.invalidateQueries({ queryKey: routinesQuery().queryKey });
      void go(`/bench/${routine.id}`);
    },
  });
  const proof = useQuery({ ...proveQuery(text?.text ?? '', 'interactive'), enabled: !!text });
  const verdict = proof.isPlaceholderData ? null : (proof.data?.verdict ?? null);
  const fault = proof.isPlaceholderData ? undefined : proof.data?.faults[0];
  const settled = values === asked && text !== undefined && !!proof.data && !proof.isPlaceholderData;
  const tried = visited.flatMap((one) => triedOf(client, principle.name, one) ?? []);
  return (
    <Scrolling className="principle" name={principle.name}>
      <header>
        <div>
          <h2>{principle.name}</h2>
          <p className="source">{principle.source}</p>
        </div>
        <Button disabled={!text} loading={open.isPending} onClick={() => text && open.mutate(text.text)}>
          Open as a routine
        </Button>
      </header>
      <p className="about">{principle.about}.</p>
      <section className="numbers" aria-label="Its numbers">
        {principle.parameters.map((one) => (
          <div key={one.name} className="number">
            <label id={`number ${one.name}`}>
              {one.says} <output className="figures">{values[one.name]}</output>
            </label>
            <Slider
              aria-labelledby={`number ${one.name}`}
              thumbProps={{ 'aria-labelledby': `number ${one.name}` }}
              thumbLabel={one.says}
              label={null}
              min={one.lowest}
              max={one.highest}
              step={one.step}
              value={values[one.name] ?? one.at}
              onChange={(value) => {
                const now = { ...values, [one.name]: value };
                setValues(now);
                setVisited((before) => [...before.filter((was) => !isSame(was, now)), now]);
              }}
            />
            <p className="tried figures">{triedWords(tried, one.name, values)}</p>
          </div>
        ))}
        <Button variant="subtle" size="compact-sm" disabled={principle.parameters.every((one) => values[one.name] === one.at)} onClick={() => setValues(first)}>
          As it was
        </Button>
      </section>
      <p className="principle-verdict" role="status">
        {settled ? <VerdictMark tone={toneOf(verdict ?? { verdict: 'refuted' })} size={28} /> : <Loader size={24} role="img" aria-label="Proving" />}
        <span>{settled ? (verdict?.headline ?? fault?.message) : 'Trying every choice…'}</span>
      </p>
      {text && <More text={text.text} />}
      <h3>The routine</h3>
      <pre className="its-text">{text?.text.trim()}</pre>
    </Scrolling>
  );
}

/** What is free, why it comes out, how far it goes, and the ways of its card. */
function More({ text }: { text: string }) {
  const { data: notes } = useQuery({ ...notesQuery(text), placeholderData: (before) => before });
  const { data: why } = useQuery({ ...explainQuery(text), placeholderData: (before) => before });
  const { data: holds } = useQuery({ ...holdsQuery(text), placeholderData: (before) => before });
  const { data: strands } = useQuery(strandsQuery(text));
  const { ref, width } = useElementSize();
  const free = notes?.notes?.recap.filter((one) => one.true) ?? [];
  return (
    <div className="more" ref={ref}>
      {strands?.strands && <StrandsPicture strands={strands.strands} width={Math.max(320, width)} height={210} />}
      <div className="columns">
        {free.length > 0 && (
          <section>
            <h3>What you may say</h3>
            <ul>
              {free.map((one) => (
                <li key={one.words}>“{one.words}.”</li>
              ))}
            </ul>
          </section>
        )}
        {(why?.explanation?.short.length ?? 0) > 0 && (
          <section>
            <h3>Why</h3>
            {why?.explanation?.short.map((words) => (
              <p key={words}>{words}</p>
            ))}
          </section>
        )}
        {holds?.limits && (
          <section>
            <h3>How far it goes</h3>
            <p>{holds.limits.says}</p>
          </section>
        )}
      </div>
    </div>
  );
}
