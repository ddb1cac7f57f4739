import { expect, test } from 'vitest';

const styles = import.meta.glob<string>('../**/*.css', { query: '?raw', import: 'default', eager: true });
const screens = import.meta.glob<string>('../**/*.tsx', { query: '?raw', import: 'default', eager: true });

/** Never without a control inside, which the keyboard comes to. */
const HOLDS_CONTROLS = new Set(['desk-names', 'asks', 'shelf', 'halves', 'practice', 'order', 'programme', 'programme-halves', 'book', 'desk', 'library']);

test('whatever can scroll can be reached by keyboard from its first moment', () => {
  const rules = Object.values(styles).flatMap((css) => [...css.matchAll(/([^{}]+)\{[^{}]*overflow(?:-[xy])?:[^;]*\b(?:auto|scroll)\b/g)]);
  const names = new Set(rules.map(([, selector]) => /\.([\w-]+)[^.]*$/.exec(selector!.trim())![1]!));
  expect(names).toContain('table-view');
  for (const name of names) {
    if (HOLDS_CONTROLS.has(name)) continue;
    const places = Object.values(screens).flatMap((code) => [...code.matchAll(new RegExp(`<([\\w]+)[^>]*className="(?:[^"]* )?${name}[ "][^>]*>`, 'g'))]);
    expect(places.length, name).toBeGreaterThan(0);
    for (const [element, tag] of places) expect(tag === 'Scrolling' || element.includes('tabIndex={0}'), element).toBe(true);
  }
});
