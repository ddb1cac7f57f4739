/** A day, or a moment, as one says how long ago it is. */
export function ago(when: string, now = new Date()): string {
  const days = Math.floor((now.getTime() - new Date(when).getTime()) / 86_400_000);
  if (days < 0) return 'later than today';
  if (days === 0) return 'today';
  if (days === 1) return 'yesterday';
  return days < 60 ? `${days} days ago` : `${Math.round(days / 30.4)} months ago`;
}

/** A mark that no other entry has, made where it is written. */
export const newUid = () => crypto.randomUUID().replaceAll('-', '');

/** Whether what was typed is what was asked for: numbers as numbers, words however they are spaced and written. */
export function isRight(typed: string, answer: string): boolean {
  const plain = (words: string) =>
    words
      .trim()
      .toLowerCase()
      .replaceAll(/[\s,.]+/g, ' ');
  if (plain(typed) === plain(answer)) return true;
  // A place may be said by its number alone: 27 for “27th in deck”.
  const number = /^(\d+)(?:st|nd|rd|th)\b/.exec(answer);
  return number !== null && plain(typed) === number[1];
}
