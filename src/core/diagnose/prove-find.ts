import type { DustHazard } from '../dust/level';
import type { MachineModel } from '../path/machine-path';
import { orderOf } from './next-test';
import { operationsOf, type School, SCHOOLS } from './next-test';
import type { MachineTraits } from './fault';
import { type Operation, operationKey } from './operation';
import { notOffered } from './within';

/** A moment of an order at which a fan runs with nothing essential before the room. */
export interface UnfilteredRun {
  readonly school: School;
  /** Actions done before, in order. */
  readonly after: readonly string[];
  readonly test: string;
  /** Stages that were not in, by position. */
  readonly out: readonly number[];
}

export interface FindProof {
  /** States of the machine that were reached, and tests looked at in them. */
  readonly states: number;
  readonly looked: number;
  readonly violations: readonly UnfilteredRun[];
}

/** Which stages are out at each moment the fan runs during a test, read from its card; empty where it never runs. */
const momentsOf = (op: Operation, out: readonly number[]): readonly (readonly number[])[] => {
  switch (op.kind) {
    case 'lookNozzle':
    case 'lookHose':
    case 'lookBag':
    case 'weigh':
    case 'cleanSide':
    case 'found':
      return [];
    case 'takeOut':
      // Out, closed, run; and it stays out until it is recorded as back.
      return [[...out, op.position]];
    case 'swap':
      return [out.filter((p) => p !== op.position)];
    default:
      return [out];
  }
};

const stopsDust = (air: MachineModel['stages'][number]['spec']['air']): boolean =>
  air.form === 'medium' && !['mesh', 'foam', 'carbonBed'].includes(air.medium);

/** The finest stage the dust meets on its way to the room. Written independently of the rule it checks. */
const reachesRoom = (
  model: MachineModel,
  out: readonly number[],
  { classed, plain }: { readonly classed: boolean; readonly plain: boolean },
): boolean => {
  const fine = model.stages.some((s) => s.kind === 'hepa')
    ? 'hepa'
    : model.stages.some((s) => s.kind === 'mainFilter')
      ? 'mainFilter'
      : null;
  const media = model.stages.flatMap((s, i) => (stopsDust(s.spec.air) ? [{ i, s }] : []));
  const fitted = media.filter(({ i, s }) => !s.missing && !out.includes(i));
  // If no stage is fine by its kind, the last filter of the path protects the room.
  const essential = fitted.some(({ i, s }) => (fine === null ? i === media.at(-1)?.i : s.kind === fine));
  if (media.length === 0) return !plain;
  return !essential && (fitted.length === 0 || classed || !plain);
};

interface Looked {
  readonly model: MachineModel;
  readonly traits: MachineTraits;
  readonly level: DustHazard;
}

const next = (op: Operation, out: readonly number[]): readonly number[] =>
  op.kind === 'takeOut' && !out.includes(op.position) ? [...out, op.position].sort((a, b) => a - b) : out;

/** More states than any machine has: a path of n filters has 2^n. */
const MOST_STATES = 4096;

/**
 * Every order that finding could give on a machine in a dust, best next and all schools: from every state that can be
 * reached by taking parts out (and putting them back), every test that is offered is looked at moment by moment. At no
 * moment may a fan run with nothing essential before the room. Source: the rule is EN 60335-2-69's essential filter.
 */
export const proveFinding = ({ model, traits, level }: Looked): FindProof => {
  const violations: UnfilteredRun[] = [];
  let [states, looked] = [0, 0];
  for (const school of SCHOOLS) {
    const seen = new Set<string>();
    const open: { readonly out: readonly number[]; readonly after: readonly string[] }[] = [{ out: [], after: [] }];
    while (open.length > 0 && seen.size < MOST_STATES) {
      const state = open.pop();
      if (!state || seen.has(state.out.join())) continue;
      seen.add(state.out.join());
      states += 1;
      const within = { stages: model.stages, traits, level, out: state.out };
      const offered = [
        ...operationsOf(model, traits),
        ...(school === 'best' ? [] : orderOf(school, { model, level })),
      ].filter((op) => notOffered(op, within) === null);
      for (const op of offered) {
        looked += 1;
        const wrong = momentsOf(op, state.out).find((out) =>
          reachesRoom(model, out, { classed: traits.machineClass !== null, plain: level === 'plain' }),
        );
        if (wrong) violations.push({ school, after: state.after, test: operationKey(op), out: wrong });
        open.push({ out: next(op, state.out), after: [...state.after, operationKey(op)] });
      }
      // Putting a part back is always possible.
      for (const p of state.out)
        open.push({ out: state.out.filter((x) => x !== p), after: [...state.after, `putBack ${p}`] });
    }
  }
  return { states, looked, violations };
};
