export interface Tried {
  values: Record<string, number>;
  came: 'works' | 'fails' | 'open';
}

const WORDS = { works: 'works', fails: 'fails', open: 'not settled' };

/** What came of the values of one number that were tried, the others being as they are: *works at 3, 5; fails at 4*. */
export function triedWords(tried: Tried[], name: string, values: Record<string, number>): string {
  const alike = tried.filter((one) => Object.keys(values).every((other) => other === name || one.values[other] === values[other]));
  if (alike.length < 2) return '';
  return (['works', 'fails', 'open'] as const)
    .map((came) => ({ came, at: alike.filter((one) => one.came === came).map((one) => one.values[name] ?? 0) }))
    .filter(({ at }) => at.length > 0)
    .map(({ came, at }) => `${WORDS[came]} at ${at.sort((a, b) => a - b).join(', ')}`)
    .join('; ');
}
