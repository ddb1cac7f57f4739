import { describe, expect, it } from 'vitest';
import { fromAddress, lines, numbers, toAddress } from './asks';

const OPENING = { cards: 24, chain: ['Out faro'], wanted: 'identity', group: false };

describe('what a desk is asked', () => {
  it('comes back from the address as it was', () => {
    const asks = { ...OPENING, cards: 30, chain: [] as string[], wanted: '5 to 18 “é”' };
    expect(fromAddress(toAddress(asks, OPENING), OPENING)).toEqual(asks);
    expect(toAddress(OPENING, OPENING)).toBe('{}');
  });

  it('takes of a foreign address what fits', () => {
    expect(fromAddress('{"cards":"many","group":true,"frog":1,"chain":"Out faro"}', OPENING)).toEqual({ ...OPENING, group: true });
    for (const broken of [null, '', '{', '[1]', 'null', '"x"']) expect(fromAddress(broken, OPENING)).toEqual(OPENING);
  });

  it('reads numbers and lines as they are typed', () => {
    expect(numbers('11, 12 and 7;')).toEqual([11, 12, 7]);
    expect(numbers('11 to 13, 5-6, 9 to 2')).toEqual([11, 12, 13, 5, 6, 9]);
    expect(lines('')).toEqual([]);
    expect(lines('a\n\nb\n')).toEqual(['a', '', 'b', '']);
  });
});
