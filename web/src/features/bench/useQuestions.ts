import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError } from '../../api/client';
import { byHandQuery, known, ledgerQuery, notesQuery, oddsQuery, playQuery, slipsQuery, strandsQuery, type Asked } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { useSettled } from '../../ui/useSettled';
import { useJudgement } from './useJudgement';

const NONE: never[] = [];
/** milliseconds without a key */
const PAUSE = 400;

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
  const { isOld, judged, error, read, ...judgement } = useJudgement(routine, settled, keepWords);

  // The verdict comes first: what else there is to say waits for it, but not for a long proof.
  const [waited] = useDebouncedValue(settled, 150);
  // And what is drawn beside it for a pause: while one types, each key is to find the machine idle.
  const [paused] = useDebouncedValue(text, PAUSE);
  const beside = judged && paused === settled;
  const [follow, setFollow] = useState<string | null>(null);
  const play = useQuery({ ...playQuery(settled, asked), enabled: judged || waited === settled });
  const ledger = useQuery({ ...ledgerQuery(settled, follow), enabled: beside });
  const strands = useQuery({ ...strandsQuery(settled), enabled: beside });
  const notes = useQuery({ ...notesQuery(settled), enabled: beside });
  const odds = useSearch(oddsQuery(settled), judged && (known(notes)?.notes?.asks_odds ?? false));
  const slips = useQuery({ ...slipsQuery(settled), enabled: beside && breaks });

  // What is told is played by hand as well, behind everything else.
  const { verdict, reads, asRead } = judgement;
  const told =
    beside && !isOld && verdict && (ledger.isError || known(ledger))
      ? { text: reads ? (asRead ?? '') : settled, verdict, ledger: reads ? null : known(ledger), odds: reads || odds.isOld ? null : odds.data?.odds }
      : null;
  const byHand = useQuery(byHandQuery(told));

  return {
    /** the text that all of it is about */
    settled,
    ...judgement,
    proving: isOld || text !== settled,
    trouble: whyNot(error),
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
    /** the second opinion on what is told; null while there is none */
    opinion: (told && byHand.data?.opinion) ?? null,
    told,
  };
}

export type Questions = ReturnType<typeof useQuestions>;

function whyNot(error: unknown): string | null {
  if (!(error instanceof ApiError)) return null;
  if (error.status === 0) return 'The server does not answer.';
  return error.status === 410 ? 'The search was stopped. Change a line to start again.' : null;
}
