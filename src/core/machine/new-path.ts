import { STAGE_KINDS } from '../path/stage-kinds';
import { MACHINE_KINDS, type MachineKind } from './kinds';
import type { EditedStage } from './path-edit';
import { stageTemplate } from './stage-templates';

/** A name no other stage has: "bag", then "bag 2". */
export const freeName = (wanted: string, taken: readonly string[]): string => {
  const has = (name: string) => taken.some((t) => t.trim().toLowerCase() === name.toLowerCase());
  if (!has(wanted)) return wanted;
  let n = 2;
  while (has(`${wanted} ${n}`)) n += 1;
  return `${wanted} ${n}`;
};

/** The stages a new machine of a kind begins with, each with a name of its own. */
export const newPath = (machine: MachineKind): readonly EditedStage[] =>
  MACHINE_KINDS[machine].path.reduce<readonly EditedStage[]>(
    (stages, kind) => [
      ...stages,
      {
        id: null,
        kind,
        name: freeName(
          STAGE_KINDS[kind].label,
          stages.map((s) => s.name),
        ),
        partId: null,
        missing: false,
        doNotRemove: false,
        spec: stageTemplate(kind, machine),
      },
    ],
    [],
  );
