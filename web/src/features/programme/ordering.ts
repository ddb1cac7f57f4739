/** The list with what stands at `from` moved to `to`. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  if (to < 0 || to >= list.length || from < 0 || from >= list.length) return [...list];
  const rest = list.filter((_, at) => at !== from);
  return [...rest.slice(0, to), list[from]!, ...rest.slice(to)];
}

/** Minutes and seconds as on a clock: 65 → 1:05. */
export function clock(seconds: number): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
