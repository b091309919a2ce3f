import { at, fail, failure, ok, type Result } from '../../failure/failure';
import { type PathAir } from './air';
import { checkChain } from './check-element';
import type { Chain, Element } from './element';
import { type Drive, type FanCoefficients, fanCoefficients } from './fan';

/** A machine's whole air path. */
export interface AirPath {
  /** Ways from the room to the first node of the trunk, as of a Y with two tools; none when the trunk starts at the tool. */
  readonly mouths: readonly Chain[];
  /** From tool (or Y) to room, with the one fan somewhere in it. */
  readonly trunk: Chain;
  readonly drive: Drive;
  readonly air: PathAir;
}

/** How a way begins: open to the room at a node, or closed there but for a known flow (0 sealed, an orifice its flow). */
export type InletState =
  | { readonly node: number; readonly state: 'open' }
  | { readonly node: number; readonly state: 'drawn'; readonly flowM3s: number };

export interface Condition {
  /** The start of the trunk; null: its first node, or the mouths. A start cuts off everything before it. */
  readonly start: InletState | null;
  /** How each mouth begins; missing ones are open at their first node. */
  readonly mouths: readonly (InletState | null)[];
  /** Node after the fan where the way out is closed; null when it is open at the room. */
  readonly closedAt: number | null;
}

export const AS_BUILT: Condition = { start: null, mouths: [], closedAt: null };

const fanElement = (trunk: Chain) =>
  trunk.elements.find((e): e is Extract<Element, { kind: 'fan' }> => e.kind === 'fan');

const checkFans = ({ mouths, trunk }: AirPath): Result<true> => {
  if (trunk.elements.length === 0) return fail(failure('path.empty'));
  const fans = trunk.elements.filter((e) => e.kind === 'fan').length;
  if (fans === 0) return fail(failure('path.no-fan'));
  if (fans > 1 || mouths.some((m) => m.elements.some((e) => e.kind === 'fan'))) return fail(failure('path.two-fans'));
  return mouths.length === 1 || mouths.some((m) => m.elements.length === 0)
    ? fail(failure('path.way', 'mouths'))
    : ok(true);
};

const checkAir = ({ densityKgM3, viscosityPaS }: PathAir): Result<true> =>
  densityKgM3 >= 0.3 && densityKgM3 <= 2 && viscosityPaS >= 1e-5 && viscosityPaS <= 3e-5
    ? ok(true)
    : fail(failure('air.state', 'air', { densityKgM3 }));

/** Checks a whole path and gives its fan as driven. Returns what is wrong by name and place. */
export const checkPath = (path: AirPath): Result<FanCoefficients> => {
  const checks = [
    checkFans(path),
    checkAir(path.air),
    at('trunk', checkChain(path.trunk)),
    ...path.mouths.map((m, i) => at(`mouths.${i}`, checkChain(m))),
  ];
  const failures = checks.flatMap((c) => (c.ok ? [] : c.failures));
  if (failures.length > 0) return fail(...failures);
  const fan = fanElement(path.trunk);
  return fan ? at('fan', fanCoefficients(fan.curve, path.drive, path.air)) : fail(failure('path.no-fan'));
};

const checkOpening = (opening: InletState | null | undefined, nodes: number, where: string): Result<true> => {
  if (!opening) return ok(true);
  if (!(Number.isInteger(opening.node) && opening.node >= 0 && opening.node < nodes))
    return fail(failure('path.node', where, { node: opening.node, most: nodes - 1 }));
  return opening.state === 'open' || (opening.flowM3s >= 0 && opening.flowM3s <= 100)
    ? ok(true)
    : fail(
        failure('path.negative', `${where}.flowM3s`, { field: 'flowM3s', value: opening.flowM3s, low: 0, high: 100 }),
      );
};

/** Checks that a condition names places the path has: starts before the fan, a closed end behind it. */
export const checkCondition = (path: AirPath, condition: Condition): Result<true> => {
  const fanAt = path.trunk.elements.findIndex((e) => e.kind === 'fan');
  const checks = [
    checkOpening(condition.start, fanAt + 1, 'start'),
    ...path.mouths.map((m, i) => checkOpening(condition.mouths[i], m.elements.length + 1, `mouths.${i}`)),
  ];
  const { closedAt } = condition;
  const end =
    closedAt === null || (Number.isInteger(closedAt) && closedAt > fanAt && closedAt <= path.trunk.elements.length);
  if (!end) checks.push(fail(failure('path.node', 'closedAt', { node: closedAt, most: path.trunk.elements.length })));
  return checks.find((c) => !c.ok) ?? ok(true);
};

/** The path with some trunk elements replaced, by position: a stage taken out, blocked, or another in its place. */
export const withElements = (path: AirPath, changes: ReadonlyMap<number, Element>): AirPath => ({
  ...path,
  trunk: { ...path.trunk, elements: path.trunk.elements.map((e, i) => changes.get(i) ?? e) },
});

/** The path with more leak area, m2, at some trunk nodes. */
export const withLeaks = (path: AirPath, moreM2: ReadonlyMap<number, number>): AirPath => ({
  ...path,
  trunk: { ...path.trunk, leaksM2: path.trunk.leaksM2.map((a, i) => a + (moreM2.get(i) ?? 0)) },
});
