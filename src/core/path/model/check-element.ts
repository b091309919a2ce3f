import { fail, failure, type Failure, ok, type Result } from '../../failure/failure';
import type { Chain, Element } from './element';

const within = (value: number, low: number, high: number): boolean => value >= low && value <= high;

type Limits = readonly (readonly [field: string, value: number, low: number, high: number])[];

/** Each number of an element with the least and the most it may be; the widest that a workshop could hold. */
const limitsOf = (e: Element): Limits => {
  switch (e.kind) {
    case 'medium':
      return [['k1PaSM', e.k1PaSM, 0, 1e7], ['k2PaSMKg', e.k2PaSMKg, 0, 1e9], ['areaM2', e.areaM2, 1e-6, 1e4], ['dustKg', e.dustKg, 0, 1e4]];
    case 'fitting':
      return [['lossK', e.lossK, 0, 1e6], ['boreM', e.boreM, 1e-3, 5]];
    case 'nozzle':
      return [['areaM2', e.areaM2, 1e-9, 100], ['coefficient', e.coefficient, 0.05, 2]];
    case 'line':
      return [
        ['boreM', e.boreM, 1e-3, 5],
        ['lengthM', e.lengthM, 0, 1e4],
        ['entryK', e.entryK, 0, 1e4],
        ['exitK', e.exitK, 0, 1e4],
        e.friction.by === 'factor' ? ['factor', e.friction.factor, 0, 10] : ['roughnessM', e.friction.roughnessM, 0, 0.1 * e.boreM],
      ];
    case 'cyclone':
      return [['lossK', e.lossK, 0, 1e6], ['inletAreaM2', e.inletAreaM2, 1e-6, 100]];
    case 'resistance':
      return [['r1PaSM3', e.r1PaSM3, 0, 1e13], ['r2PaS2M6', e.r2PaS2M6, 0, 1e15]];
    case 'check':
      return [['crackPa', e.crackPa, 0, 1e5], ['r2PaS2M6', e.r2PaS2M6, 0, 1e15]];
    case 'series':
    case 'parallel':
    case 'fan':
      return [];
  }
};

const codeOf = (field: string, value: number, low: number) => {
  if (field === 'boreM') return 'path.bore' as const;
  if (field.endsWith('reaM2') && !(value >= low)) return 'path.area' as const;
  return value < 0 ? ('path.negative' as const) : ('path.range' as const);
};

/**
 * Refuses what no element can be, by name: `path.area`, `path.bore`, `path.negative`, `path.range`, and for ways side
 * by side `path.way` (fewer than two, an empty one, or a fan inside).
 */
export const checkElement = (element: Element): Result<true> => {
  const wrong = limitsOf(element).filter(([, value, low, high]) => !within(value, low, high));
  if (wrong.length > 0) return fail(...wrong.map(([field, value, low, high]) => failure(codeOf(field, value, low), field, { field, value, low, high })));
  if (element.kind !== 'parallel' && element.kind !== 'series') return ok(true);
  const ways = element.kind === 'series' ? [element.parts] : element.ways;
  const tooFew = element.kind === 'parallel' && ways.length < 2;
  if (tooFew || ways.some((w) => w.length === 0 || w.some((e) => e.kind === 'fan'))) return fail(failure('path.way'));
  return ways.flat().map(checkElement).find((r) => !r.ok) ?? ok(true);
};

/** Checks every element and leak of a chain; the failure's path says which. */
export const checkChain = ({ elements, leaksM2 }: Chain): Result<true> => {
  if (leaksM2.length !== elements.length + 1) return fail(failure('path.leak', 'leaksM2', { have: leaksM2.length, need: elements.length + 1 }));
  const leak = leaksM2.findIndex((a) => !within(a, 0, 10));
  if (leak >= 0) return fail(failure('path.leak', `leaksM2.${leak}`, { value: leaksM2[leak] ?? 0 }));
  const failures: Failure[] = [];
  for (const [i, element] of elements.entries()) {
    const checked = checkElement(element);
    if (!checked.ok) failures.push(...checked.failures.map((f) => ({ ...f, path: ['elements', i, f.path].filter((x) => x !== '').join('.') })));
  }
  return failures.length > 0 ? fail(...failures) : ok(true);
};
