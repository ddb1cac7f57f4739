import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { ApiError, api } from '../../api/client';
import { useSearch } from '../../api/useSearch';
import { ledgerQuery, notesQuery, oddsQuery, playQuery, proveQuery, readAsQuery, readQuery, slipsQuery, strandsQuery, type Asked } from '../../api/queries';
import { useProgress } from '../../api/useProgress';
import { useSettled } from '../../ui/useSettled';

interface Beside {
  routine: number;
  text: string;
  /** which path is played */
  asked: Asked;
  keepWords: boolean;
  /** what breaks it is looked at */
  breaks: boolean;
}

/** Everything that is asked about the text on the sheet: how it reads, the verdict first, and what explains it as it comes. */
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
  const progress = useProgress(proof.isFetching ? job : null);

  // Lines in everyday words: what is sure of them is proved as if it stood there.
  // A sentence of the language can be in question too: a word of the trade that would become a new heap.
  const unread = !read.isPlaceholderData && (read.data?.to_read ?? false);
  const understood = useQuery({ ...readAsQuery(settled, keepWords), enabled: unread });
  const asRead = unread ? (understood.data?.text ?? null) : null;
  const proofAsRead = useQuery({ ...proveQuery(asRead ?? '', 'interactive', `${job.slice(0, 60)} as`), placeholderData: undefined, enabled: asRead !== null });
  const readAs = useMemo(
    () => (unread && understood.data ? { text: settled, lines: understood.data.lines, keepWords } : null),
    [unread, understood.data, settled, keepWords],
  );

  const play = useQuery({ ...playQuery(settled, asked), enabled: judged || waited === settled });
  const ledger = useQuery({ ...ledgerQuery(settled, follow), enabled: judged });
  const strands = useQuery({ ...strandsQuery(settled), enabled: judged });
  const notes = useQuery({ ...notesQuery(settled), enabled: judged });
  const noted = notes.data?.notes ?? null;
  const odds = useSearch(oddsQuery(settled), judged && (noted?.asks_odds ?? false));
  const slips = useQuery({ ...slipsQuery(settled), enabled: judged && breaks });

  return {
    /** the text that all of it is about */
    settled,
    verdict: proof.data?.verdict ?? (asRead === null ? null : (proofAsRead.data?.verdict ?? null)),
    /** with so many lines as they were read */
    reads: proof.data?.verdict || asRead === null ? 0 : (understood.data?.sure ?? 0),
    /** the text with what is sure of it written down */
    asRead,
    readAs,
    proving: proof.isPlaceholderData || proof.isFetching || text !== settled,
    progress,
    trouble: whyNot(proof.error),
    stop: () => void api.cancel(job),
    longer: () => setLonger(settled),
    faults: proof.data?.faults ?? [],
    /** where the faults stand on the sheet; while it is proved, those of reading it alone */
    faultsToShow: proof.isPlaceholderData ? read.data?.faults : proof.data?.faults,
    lines: read.isPlaceholderData ? undefined : read.data?.lines,
    /** what was read last, and of which text */
    readLast: read.data,
    blanks: read.data?.blanks ?? [],
    numbers: read.data?.numbers ?? [],
    play: play.data,
    ledger: ledger.isPlaceholderData ? undefined : ledger.data?.ledger,
    followed: ledger.data?.card ?? null,
    cards: ledger.data?.cards ?? [],
    follow: setFollow,
    strands: strands.data,
    noted,
    odds: odds.data?.odds ?? null,
    /** how far they are, in words; null while nobody waits for them */
    waitsForOdds: odds.isFetching ? (odds.progress ?? '') : null,
    slips: slips.data?.slips ?? null,
  };
}

export type Questions = ReturnType<typeof useQuestions>;

function whyNot(error: unknown): string | null {
  if (!(error instanceof ApiError)) return null;
  if (error.status === 0) return 'The server does not answer.';
  return error.status === 410 ? 'The search was stopped. Change a line to start again.' : null;
}
