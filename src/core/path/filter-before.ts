import type { ModelStage } from './machine-path';

/** The position of the nearest filter before a stage that the air passes through; null without one. Definition: the path, tool to room. Total. */
export const filterBefore = (
  stages: readonly Pick<ModelStage, 'missing' | 'spec'>[],
  position: number,
): number | null => {
  const found = stages.slice(0, Math.max(0, position)).findLastIndex((s) => !s.missing && s.spec.air.form === 'medium');
  return found < 0 ? null : found;
};
