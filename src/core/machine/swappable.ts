import type { Machine } from './machine';

/** Stages a new part from the shelf can be tried in, tool to room, by position. Source: common practice, no published source. Total. */
export const swappableStages = ({ stages }: Pick<Machine, 'stages'>): readonly number[] =>
  stages.flatMap((s, i) => (s.spec.air.form === 'medium' && !s.missing && s.kind !== 'gas' && s.part ? [i] : []));
