import { fail, failure, type Failure, ok, type Result } from '../../failure/failure';
import type { Chain, Element } from './element';

type Limit = readonly [field: string, low: number, high: number];

/** The least and the most each number of an element may be; the widest that a workshop could hold. */
const LIMITS: Record<Element['kind'], readonly Limit[]> = {
  medium: [
    ['k1PaSM', 0, 1e7],
    ['k2PaSMKg', 0, 1e9],
    ['areaM2', 1e-6, 1e4],
    ['dustKg', 0, 1e4],
  ],
  fitting: [
    ['lossK', 0, 1e6],
    ['boreM', 1e-3, 5],
  ],
  nozzle: [
    ['areaM2', 1e-9, 100],
    ['coefficient', 0.05, 2],
  ],
  line: [
    ['boreM', 1e-3, 5],
    ['lengthM', 0, 1e4],
    ['entryK', 0, 1e4],
    ['exitK', 0, 1e4],
  ],
  cyclone: [
    ['lossK', 0, 1e6],
    ['inletAreaM2', 1e-6, 100],
  ],
  resistance: [
    ['r1PaSM3', 0, 1e13],
    ['r2PaS2M6', 0, 1e15],
  ],
  check: [
    ['crackPa', 0, 1e5],
    ['r2PaS2M6', 0, 1e15],
  ],
  series: [],
  parallel: [],
  fan: [],
};

const MOST_FACTOR = 10;
/** Colebrook-White is stated to a twentieth of the bore; Moorwind takes a tenth. */
const MOST_ROUGHNESS = 0.1;

const codeOf = (field: string, value: number, low: number) => {
  if (field === 'boreM') return 'path.bore' as const;
  if (field.endsWith('reaM2') && !(value >= low)) return 'path.area' as const;
  return value < 0 ? ('path.negative' as const) : ('path.range' as const);
};

const wrong = ([field, low, high]: Limit, value: number): Failure =>
  failure(codeOf(field, value, low), field, { field, value, low, high });

const wrongFriction = (e: Extract<Element, { kind: 'line' }>): Failure | null => {
  const { friction } = e;
  const [value, high, field] =
    friction.by === 'factor'
      ? [friction.factor, MOST_FACTOR, 'factor']
      : [friction.roughnessM, MOST_ROUGHNESS * e.boreM, 'roughnessM'];
  return value >= 0 && value <= high ? null : wrong([field, 0, high], value);
};

const checkWays = (ways: readonly (readonly Element[])[], least: number): Result<true> => {
  if (ways.length < least || ways.some((w) => w.length === 0 || w.some((e) => e.kind === 'fan')))
    return fail(failure('path.way'));
  return (
    ways
      .flat()
      .map(checkElement)
      .find((r) => !r.ok) ?? ok(true)
  );
};

const FINE = ok<true>(true);

/**
 * Refuses what no element can be, by name: `path.area`, `path.bore`, `path.negative`, `path.range`, and for ways side
 * by side `path.way` (fewer than two, an empty one, or a fan inside).
 */
export const checkElement = (element: Element): Result<true> => {
  if (element.kind === 'parallel') return checkWays(element.ways, 2);
  if (element.kind === 'series') return checkWays([element.parts], 1);
  // Every path is checked before it is solved, so nothing is made here until something is wrong.
  const values = element as unknown as Readonly<Record<string, number>>;
  let failures: Failure[] | null = null;
  for (const limit of LIMITS[element.kind]) {
    const value = values[limit[0]] ?? Number.NaN;
    if (!(value >= limit[1] && value <= limit[2])) failures = [...(failures ?? []), wrong(limit, value)];
  }
  const friction = element.kind === 'line' ? wrongFriction(element) : null;
  if (friction) failures = [...(failures ?? []), friction];
  return failures ? fail(...failures) : FINE;
};

/** Checks every element and leak of a chain; the failure's path says which. */
export const checkChain = ({ elements, leaksM2 }: Chain): Result<true> => {
  if (leaksM2.length !== elements.length + 1)
    return fail(failure('path.leak', 'leaksM2', { have: leaksM2.length, need: elements.length + 1 }));
  const leak = leaksM2.findIndex((a) => !(a >= 0 && a <= 10));
  if (leak >= 0) return fail(failure('path.leak', `leaksM2.${leak}`, { value: leaksM2[leak] ?? 0 }));
  const failures: Failure[] = [];
  elements.forEach((element, i) => {
    const checked = checkElement(element);
    if (!checked.ok)
      failures.push(
        ...checked.failures.map((f) => ({ ...f, path: ['elements', i, f.path].filter((x) => x !== '').join('.') })),
      );
  });
  return failures.length > 0 ? fail(...failures) : FINE;
};
