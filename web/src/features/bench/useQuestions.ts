import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { ApiError, api, type Fault } from '../../api/client';
import { useSearch } from '../../api/useSearch';
import { ledgerQuery, notesQuery, oddsQuery, playQuery, proveQuery, readAsQuery, readQuery, slipsQuery, strandsQuery, type Asked } from '../../api/queries';
import { useProgress } from '../../api/useProgress';
import { useLast } from '../../ui/useLast';
import type { ReadAs } from './readAs';
import { useSettled } from '../../ui/useSettled';

const NONE: never[] = [];

interface Beside {
  routine: number;
  text: string;
  /** which path is played */
  asked: Asked;
  keepWords: boolean;
  /** what breaks it is looked at */
  breaks: boolean;
}

/**
 * Everything that is asked about the text on the sheet: how it reads, the verdict first, and what explains it as it comes.
 *
 * Until an answer comes, the last one stays, marked as old; what the sheet itself wears is null until it is known of this text.
 */
export function useQuestions({ routine, text, asked, keepWords, breaks }: Beside) {
  const settled = useSettled(text, 60);
  // The verdict comes first: what else there is to say waits for it, but not for a long proof.
  const [waited] = useDebouncedValue(settled, 150);
  const [longer, setLonger] = useState<string | null>(null);
  const [follow, setFollow] = useState<string | null>(null);
  const job = useMemo(() => `${routine} ${crypto.randomUUID()} ${settled.length}`.slice(0, 64), [routine, settled]);
  const proof = useQuery(proveQuery(settled, longer === settled ? 'long' : 'interactive', job));
  const judged = proof.isSuccess && !proof.isPlaceholderData;
  const read = useQuery(readQuery(settled));

  // Lines in everyday words: what is sure of them is proved as if it stood there.
  // A sentence of the language can be in question too: a word of the trade that would become a new heap.
  const unread = !read.isPlaceholderData && (read.data?.to_read ?? false);
  const understood = useQuery({ ...readAsQuery(settled, keepWords), enabled: unread });
  const asRead = unread ? (understood.data?.text ?? null) : null;
  const jobAsRead = `${job.slice(0, 60)} as`;
  const proofAsRead = useQuery({ ...proveQuery(asRead ?? '', 'interactive', jobAsRead), placeholderData: undefined, enabled: asRead !== null });
  const progress = useProgress(proof.isFetching ? job : proofAsRead.isFetching ? jobAsRead : null);
  const readings = understood.isError ? NONE : understood.data?.lines;
  const readAs = useMemo(() => {
    const lines = unread ? readings : read.isPlaceholderData ? null : NONE;
    return lines ? { text: settled, lines, keepWords } : null;
  }, [unread, readings, read.isPlaceholderData, settled, keepWords]);

  // Nothing is said until both are known: else it would be no routine for a moment, with every key.
  const isUnderstood = understood.isError || (understood.isSuccess && (asRead === null || !proofAsRead.isPending));
  const isRead = !read.isPlaceholderData && (!unread || isUnderstood);
  const judgement = useLast(
    proof.isError || (judged && (proof.data.verdict !== null || isRead || read.isError)),
    useMemo(() => {
      const itself = proof.data?.verdict || asRead === null;
      const verdict = (itself ? proof.data : proofAsRead.data)?.verdict ?? null;
      return {
        verdict,
        /** with so many lines as they were read */
        reads: itself ? 0 : (understood.data?.sure ?? 0),
        /** what stands in the way of a verdict */
        faults: verdict ? NONE : pending(proof.data?.faults ?? NONE, readAs),
      };
    }, [proof.data, asRead, proofAsRead.data, understood.data, readAs]),
  );

  const play = useQuery({ ...playQuery(settled, asked), enabled: judged || waited === settled });
  const ledger = useQuery({ ...ledgerQuery(settled, follow), enabled: judged });
  const strands = useQuery({ ...strandsQuery(settled), enabled: judged });
  const notes = useQuery({ ...notesQuery(settled), enabled: judged });
  const odds = useSearch(oddsQuery(settled), judged && (known(notes)?.notes?.asks_odds ?? false));
  const slips = useQuery({ ...slipsQuery(settled), enabled: judged && breaks });

  return {
    /** the text that all of it is about */
    settled,
    ...judgement.value,
    /** the text with what is sure of it written down */
    asRead,
    /** how lines in everyday words can be read; null while that is not known */
    readAs,
    proving: judgement.isOld || proof.isFetching || text !== settled,
    progress,
    trouble: whyNot(proof.error),
    stop: () => [job, jobAsRead].forEach((one) => void api.cancel(one)),
    longer: () => setLonger(settled),
    /** where the faults stand on the sheet; while it is proved, those of reading it alone */
    faultsToShow: (proof.isPlaceholderData ? known(read) : proof.data)?.faults ?? null,
    lines: known(read)?.lines ?? null,
    blanks: read.data?.blanks ?? [],
    numbers: read.data?.numbers ?? [],
    play: play.data,
    playIsOld: play.isPlaceholderData,
    ledger: ledger.isError ? NONE : (known(ledger)?.ledger ?? null),
    followed: ledger.data?.card ?? null,
    cards: ledger.data?.cards ?? [],
    follow: setFollow,
    strands: strands.data,
    noted: notes.data?.notes ?? null,
    notesAreOld: notes.isPlaceholderData,
    odds: notes.data?.notes?.asks_odds ? (odds.data?.odds ?? null) : null,
    /** how far they are, in words; null while nobody waits for them */
    waitsForOdds: odds.isFetching ? (odds.progress ?? '') : null,
    slips: slips.data?.slips ?? null,
  };
}

/** What stands in the way of a verdict. A line that can mean several things is a question; one that was understood is no fault. */
function pending(faults: Fault[], readAs: ReadAs | null): Fault[] {
  const question = readAs?.lines.find((one) => one.answer.asks);
  if (!question) return faults.filter((fault) => !readAs?.lines.some((one) => one.line === fault.line && one.answer.readings.length > 0));
  const message = `It can mean ${question.answer.readings.length} things.`;
  return [{ line: question.line, column: 1, end: 1, message, expected: 'one of the readings below it', remedy: 'Alt ↓ shows the next one, Tab writes it.' }];
}

/** The answer to what is asked now, not one to what was asked before. */
function known<T>({ data, isPlaceholderData }: { data: T | undefined; isPlaceholderData: boolean }): T | undefined {
  return isPlaceholderData ? undefined : data;
}

export type Questions = ReturnType<typeof useQuestions>;

function whyNot(error: unknown): string | null {
  if (!(error instanceof ApiError)) return null;
  if (error.status === 0) return 'The server does not answer.';
  return error.status === 410 ? 'The search was stopped. Change a line to start again.' : null;
}
