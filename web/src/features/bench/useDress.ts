import { useMemo } from 'react';
import type { Dress } from './sheetDress';
import type { Questions } from './useQuestions';

const NO_SLIPS = { strict: [], free: [] };

/** What the sheet wears of what was answered. `text` is what stands on it now. */
export function useDress(found: Questions, text: string, { current, failing }: NonNullable<Dress['shown']>): Dress {
  const { settled, lines, ledger, faultsToShow, readAs, playIsOld, notesAreOld, noted, slips } = found;
  const asSettled = text === settled;
  return useMemo(
    () => ({
      text: settled,
      lines,
      ledger,
      // Below a line that was understood stands what it was read as.
      faults: (readAs && faultsToShow?.filter((fault) => !readAs.lines.some((one) => one.line === fault.line))) ?? null,
      shown: playIsOld ? null : { current, failing },
      shows: notesAreOld ? null : (noted?.shows ?? []),
      slips: slips ?? NO_SLIPS,
    }),
    // What was cut out and put back at once is dressed anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [asSettled, settled, lines, ledger, faultsToShow, readAs, playIsOld, current, failing, notesAreOld, noted, slips],
  );
}
