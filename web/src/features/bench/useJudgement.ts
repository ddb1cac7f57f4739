import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api, type Fault } from '../../api/client';
import { known, proveQuery, readAsQuery, readQuery } from '../../api/queries';
import { useProgress } from '../../api/useProgress';
import { useLast } from '../../ui/useLast';
import type { ReadAs } from './readAs';

const NONE: never[] = [];

/** How a text reads and what its verdict is; lines in everyday words are proved as what they surely mean. */
export function useJudgement(routine: number, settled: string, keepWords: boolean) {
  const [longer, setLonger] = useState<string | null>(null);
  const job = useMemo(() => `${routine} ${crypto.randomUUID()} ${settled.length}`.slice(0, 64), [routine, settled]);
  const proof = useQuery(proveQuery(settled, longer === settled ? 'long' : 'interactive', job));
  const judged = proof.isSuccess && !proof.isPlaceholderData;
  const read = useQuery(readQuery(settled));

  // A sentence of the language can be in question too: a word of the trade that would become a new heap.
  const unread = known(read)?.to_read ?? false;
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

  return {
    ...judgement.value,
    isOld: judgement.isOld || proof.isFetching,
    /** of this text there is an answer, a verdict or faults */
    judged,
    error: proof.error,
    progress,
    /** the text with what is sure of it written down */
    asRead,
    /** how lines in everyday words can be read; null while that is not known */
    readAs,
    read,
    /** where the faults stand on the sheet; while it is proved, those of reading it alone */
    faultsToShow: (proof.isPlaceholderData ? known(read) : proof.data)?.faults ?? null,
    stop: () => [job, jobAsRead].forEach((one) => void api.cancel(one)),
    longer: () => setLonger(settled),
  };
}

/** What stands in the way of a verdict. A line that can mean several things is a question; one that was understood is no fault. */
function pending(faults: Fault[], readAs: ReadAs | null): Fault[] {
  const question = readAs?.lines.find((one) => one.answer.asks);
  if (!question) return faults.filter((fault) => !readAs?.lines.some((one) => one.line === fault.line && one.answer.readings.length > 0));
  const message = `It can mean ${question.answer.readings.length} things.`;
  return [{ line: question.line, column: 1, end: 1, message, expected: 'one of the readings below it', remedy: 'Alt ↓ shows the next one, Tab writes it.' }];
}
