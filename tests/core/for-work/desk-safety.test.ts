import { describe, expect, it } from 'vitest';
import { checkDesk, MATERIALS } from '../../bench/safety/desk';

describe('the work desk against demands written by hand', () => {
  const check = checkDesk();

  it('asks sixty materials and more with twelve tools in four places, wet and dry', () => {
    expect(MATERIALS.length).toBeGreaterThanOrEqual(60);
    expect(check.asked).toBe(MATERIALS.length * 12 * 4 * 2);
  });

  it('lets no machine take what it must not, and says every warning', () => {
    expect([...new Set(check.violations)]).toEqual([]);
  });

  it('does not refuse everyday work: a sander on any dust has a machine in a full yard', () => {
    expect(check.refusedForNothing).toEqual([]);
  });
});
