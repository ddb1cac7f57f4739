import { Button, Checkbox } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Fault, Opinion, Told, Verdict } from '../../api/client';
import { saveAs } from '../../ui/saveAs';
import './verdict.css';

type Tone = 'sure' | 'broken' | 'open' | 'writing';

const TONES: Record<Verdict['verdict'], Tone> = {
  proved: 'sure',
  fixed: 'sure',
  rule: 'sure',
  refuted: 'broken',
  'one-of': 'open',
  lost: 'open',
  unsettled: 'open',
};

/** A filled ring is sure, a cross is broken, an open ring is undecided, a pen is still being written. */
export function VerdictMark({ tone, size = 34 }: { tone: Tone; size?: number }) {
  return (
    <svg className={`verdict-mark ${tone}`} width={size} height={size} viewBox="0 0 34 34" aria-hidden>
      {tone === 'sure' && (
        <>
          <circle cx="17" cy="17" r="16" fill="currentColor" />
          <circle cx="17" cy="17" r="5.5" fill="var(--page)" />
        </>
      )}
      {tone === 'broken' && (
        <g fill="none" stroke="currentColor" strokeWidth="3" strokeLinecap="round">
          <circle cx="17" cy="17" r="15" />
          <path d="m12.5 12.5 9 9m0-9-9 9" />
        </g>
      )}
      {tone === 'open' && <circle cx="17" cy="17" r="14.5" fill="none" stroke="currentColor" strokeWidth="3" strokeDasharray="5 4.1" />}
      {tone === 'writing' && <path d="M8 26l2-7L22 7l5 5-12 12z" fill="none" stroke="currentColor" strokeWidth="2.6" strokeLinejoin="round" />}
    </svg>
  );
}

export const toneOf = (of: { verdict: Verdict['verdict'] | null } | null | undefined): Tone => (of?.verdict ? TONES[of.verdict] : 'writing');

const SUPERSCRIPT = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** Figures up to a billion, then powers of ten: nobody reads forty figures. */
function figures(n: number): string {
  if (n < 1e9) return n.toLocaleString('en');
  const power = Math.floor(Math.log10(n));
  return `${(n / 10 ** power).toFixed(2)} × 10${[...String(power)].map((digit) => SUPERSCRIPT[Number(digit)]).join('')}`;
}

const count = (n: number, one: string, many: string) => `${figures(n)} ${n === 1 ? one : many}`;

function coverage(verdict: Verdict): string {
  const ms = verdict.seconds * 1000;
  return [
    verdict.counted,
    verdict.states_widest > 0 && `widest ${count(verdict.states_widest, 'situation', 'situations')}`,
    verdict.covers,
    verdict.assumed.length ? `assumes ${verdict.assumed.join(', ')}` : 'nothing assumed',
    ms < 1000 ? `${ms.toFixed(1)} ms` : `${(ms / 1000).toFixed(1)} s`,
  ]
    .filter(Boolean)
    .join(' · ');
}

const sentence = (words: string) => `${words.slice(0, 1).toUpperCase()}${words.slice(1)}.`;

const wayOf = ({ choices }: Opinion) => (choices.length ? `The way: ${choices.map(({ line, option }) => `${option} in line ${line}`).join(', ')}.` : '');

interface VerdictBarProps {
  verdict: Verdict | null;
  faults: Fault[];
  /** the verdict is of an older text: a newer proof is under way */
  old: boolean;
  /** how far a long proof has got, in words */
  progress: string | null;
  /** the answer could not be had */
  trouble: string | null;
  /** what came of playing it by hand; null while that is not known */
  opinion: Opinion | null;
  /** what it was held against */
  told: Told | null;
  /** lines in everyday words that are proved as they were read; 0 for none */
  reads: number;
  /** write them all so; null until it is known of this text how */
  onAccept: (() => void) | null;
  /** what was written stays above its reading as a remark */
  keepWords: boolean;
  onKeepWords: (keep: boolean) => void;
  onShow: () => void;
  onLine: (line: number) => void;
  onStop: () => void;
  onLonger: () => void;
  children?: ReactNode;
}

/** The verdict, always in view: the word, what it covers, and what to do when it is not the one wanted. */
export function VerdictBar({
  verdict,
  faults,
  old,
  progress,
  trouble,
  opinion,
  told,
  reads,
  onAccept,
  keepWords,
  onKeepWords,
  onShow,
  onLine,
  onStop,
  onLonger,
  children,
}: VerdictBarProps) {
  const fault = faults[0];
  const differs = !old && !trouble && opinion && !opinion.agrees ? opinion : null;
  const headline =
    trouble ?? differs?.says ?? verdict?.headline ?? (fault ? `Not yet a routine: line ${fault.line}. ${fault.message}` : 'Reading the routine…');
  const more = trouble
    ? 'Your text is kept in this window and will be saved when the server is back.'
    : differs
      ? `${sentence(differs.differs)} ${wayOf(differs)}`
      : verdict
        ? `${reads ? `with ${reads} ${reads === 1 ? 'line' : 'lines'} as read · ` : ''}${coverage(verdict)}${opinion?.agrees && !old ? ` · ${opinion.says.replace(/\.$/, '').replace('Also', 'also')}` : ''}`
        : fault
          ? `Expected ${fault.expected}. ${fault.remedy}`
          : '';
  const tone = trouble || differs ? 'open' : toneOf(verdict);
  return (
    <section className={`verdict ${old ? 'old' : ''}`} aria-label="Verdict" data-verdict={differs ? 'in doubt' : (verdict?.verdict ?? 'none')} data-old={old}>
      <VerdictMark tone={tone} />
      <div className="words" role="status">
        {verdict?.counterexample && !differs ? (
          <button type="button" className={`headline ${tone}`} onClick={onShow} title="Play it on the table">
            {headline}
          </button>
        ) : fault && !trouble && !verdict ? (
          <button type="button" className={`headline ${tone}`} onClick={() => onLine(fault.line)} title="Go to this line">
            {headline}
          </button>
        ) : (
          <p className={`headline ${tone}`}>{headline}</p>
        )}
        <p className="cover figures">{old ? (progress ? `proving: ${progress}` : 'proving…') : more}</p>
      </div>
      {differs && (
        <Button
          variant="default"
          size="compact-sm"
          onClick={() => saveAs('golden-pivot-disagreement.json', JSON.stringify({ told, opinion: differs }, null, 2))}
        >
          Save a report to send
        </Button>
      )}
      {old && progress && (
        <Button variant="default" size="compact-sm" onClick={onStop}>
          Stop
        </Button>
      )}
      {reads > 0 && <Checkbox size="xs" label="Keep my words as remarks" checked={keepWords} onChange={(event) => onKeepWords(event.currentTarget.checked)} />}
      {reads > 0 && (
        <Button
          variant="default"
          size="compact-sm"
          disabled={!onAccept}
          onClick={onAccept ?? undefined}
          title="Write every line that is sure as it was read; undo takes it back"
        >
          {verdict ? 'Write them so' : `Write ${reads === 1 ? 'the line' : `the ${reads} lines`} that ${reads === 1 ? 'is' : 'are'} sure`}
        </Button>
      )}
      {!old && verdict?.limit && (
        <Button variant="default" size="compact-sm" onClick={onLonger}>
          Search longer
        </Button>
      )}
      {children}
    </section>
  );
}
