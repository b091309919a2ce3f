import { describe, expect, it } from 'vitest';
import { matches } from '@/core/machine/tag-search';
import { actionOfKey, MACHINE_KEYS, SITE_KEYS } from '@/islands/shell/keys';
import { changeReducer, startChange } from '@/islands/change/state';

const turnstone = { tag: 'CR-04', name: 'Turnstone', place: 'laminate bay', kindText: 'extractor' };

describe('jumping to a tag', () => {
  it.each(['4', '04', 'cr-04', 'CR04', 'turn', 'laminate', 'bay', ''])('"%s" finds CR-04', (query) => {
    expect(matches(turnstone, query)).toBe(true);
  });
  it.each(['5', '14', 'cr05', 'heron'])('"%s" does not', (query) => {
    expect(matches(turnstone, query)).toBe(false);
  });
});

describe('single keys', () => {
  it('every key on the help sheet does something, on a machine', () => {
    for (const { key } of [...SITE_KEYS, ...MACHINE_KEYS]) expect(actionOfKey(key, 'CR-04'), key).not.toBeNull();
  });
  it('keys of a machine do nothing without one', () => {
    for (const { key } of MACHINE_KEYS) expect(actionOfKey(key, null), key).toBeNull();
    expect(actionOfKey('x', 'CR-04')).toBeNull();
  });
  it('a tag with odd signs stays one path segment', () => {
    expect(actionOfKey('m', 'A/B #1')).toEqual({ kind: 'go', to: '/m/A%2FB%20%231/measure' });
  });
});

describe('the change sheet', () => {
  it('takes at least one and at most twenty of a part', () => {
    const start = startChange({ clientId: 'client-0001', by: 'MK', stageId: 1, beforeTestId: null });
    expect(changeReducer(start, { type: 'quantity', by: -1 }).quantity).toBe(1);
    const many = Array.from({ length: 30 }).reduce<typeof start>(
      (s) => changeReducer(s, { type: 'quantity', by: 1 }),
      start,
    );
    expect(many.quantity).toBe(20);
  });
});
