import { SEAL_LEAK } from '@/core/constants/path';
import { AS_NEW } from '@/core/path/as-new';
import type { Failure } from '@/core/failure/failure';
import type { MachineModel } from '@/core/path/machine-path';
import { checkMachinePath } from '@/core/path/path-rules';
import { type PressureProfile, pressureProfile, templateParameters } from '@/core/path/pressure-profile';
import type { Draft } from './state';

export const modelOfDraft = (d: Draft): MachineModel => ({
  stages: d.stages.map((s, i) => ({
    id: s.id ?? -1 - i,
    kind: s.kind,
    name: s.name.trim() === '' ? `stage ${i + 1}` : s.name,
    missing: s.missing,
    spec: s.spec,
  })),
  hoseBoreM: d.machine.hoseBoreM,
  hoseLengthM: d.machine.hoseLengthM,
});

export interface Preview {
  readonly failures: readonly Failure[];
  /** As entered and clean, by the figures entered; null when the path cannot be. */
  readonly stairs: PressureProfile | null;
}

/** The flow of the path being edited, or the reason it has none. */
export const previewOf = (d: Draft): Preview => {
  const model = modelOfDraft(d);
  const checked = checkMachinePath(model, { wet: d.machine.wetSet });
  if (!checked.ok) return { failures: checked.failures, stairs: null };
  const solved = pressureProfile({ model, parameters: templateParameters(model, SEAL_LEAK.value), state: AS_NEW });
  return solved.ok ? { failures: [], stairs: solved.value } : { failures: solved.failures, stairs: null };
};

/** Positions of the stages a failure points at. */
export const pointedAt = (failures: readonly Failure[]): ReadonlySet<number> =>
  new Set(failures.flatMap((f) => /(?:^|\.)stages\.(\d+)/.exec(f.path)?.[1] ?? []).map(Number));
