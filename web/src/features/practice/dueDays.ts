/** How many questions fall due on each of the coming days, today with all that is overdue; the last day takes what comes later. */
export function dueDays(due: (string | null | undefined)[], now: Date, days = 14): number[] {
  const found = Array.from({ length: days }, () => 0);
  const begins = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
  for (const one of due) {
    if (!one) continue;
    const day = Math.floor((new Date(one).getTime() - begins) / 86_400_000);
    found[Math.max(0, Math.min(days - 1, day))]! += 1;
  }
  return found;
}
