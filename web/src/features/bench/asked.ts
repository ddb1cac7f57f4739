import type { Decision } from '../../api/client';
import type { Asked } from '../../api/queries';

/** The plainest path: of every choice the first that there is. */
export const FIRST: Asked = { choices: {}, seed: null, worst: false };

/** Every choice by chance, another one each time. */
export function anyPath(): Asked {
  return { ...FIRST, seed: anySeed() };
}

function anySeed(): number {
  return Math.floor(Math.random() * 2 ** 31);
}

/** What is in the hand: what was played, and on top of it what was chosen since and is not played yet. */
export interface InHand {
  decisions: Decision[] | undefined;
  /** the path that is asked for is not played yet */
  isOld: boolean;
}

/** One choice more; those before it stand, whether their path was played already or not. */
export function choosing(before: Asked, hand: InHand, key: string, value: number): Asked {
  const { choices, seed } = standing(before, hand);
  return { ...FIRST, seed, choices: { ...choices, [key]: value } };
}

/** The first that there is of these choices, or others by chance; everything else stands. */
export function choosingTogether(before: Asked, hand: InHand, keys: string[], byChance: boolean): Asked {
  const { choices, seed } = standing(before, hand);
  const others = Object.entries(choices).filter(([key]) => !keys.includes(key));
  return { ...FIRST, choices: Object.fromEntries(others), seed: byChance ? anySeed() : seed };
}

/** The hand with what was chosen and is not played yet. */
export function inHand(asked: Asked, { decisions, isOld }: InHand): Decision[] | undefined {
  const chosen = (decision: Decision) => asked.choices[decision.key] ?? decision.value;
  if (!isOld || !decisions?.some((decision) => chosen(decision) !== decision.value)) return decisions;
  return decisions.map((decision) => ({ ...decision, value: chosen(decision) }));
}

/** What a next choice leaves as it is. Only the worst case cannot be told before it is played. */
function standing(before: Asked, { decisions, isOld }: InHand): Pick<Asked, 'choices' | 'seed'> {
  if (isOld && !before.worst) return before;
  return { choices: Object.fromEntries((decisions ?? []).map((decision) => [decision.key, decision.value])), seed: null };
}
