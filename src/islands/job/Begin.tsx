import type { Dust } from '@/core/dust/dust';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import type { UnitSystem } from '@/core/units';
import type { ShownPath } from '@/ui/air-path/shown-path';
import { AirPathStrip } from '@/ui/air-path/strip';
import { Start } from './Start';

interface BeginProps {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly view: ShownPath;
  readonly units: UnitSystem;
  readonly by: string;
  readonly stageId: number | null;
  readonly wanted: string | null;
  readonly ownDusts: readonly Dust[];
}

/** Begins a guided change with the question of the dust. */
export const JobBegin = (p: BeginProps) => {
  return (
    <div>
      <AirPathStrip compact view={p.view} units={p.units} machine={p.machine} due={p.due} openStageId={p.stageId} />
      <Start
        ownDusts={p.ownDusts}
        machine={p.machine}
        by={p.by}
        stageId={p.stageId}
        units={p.units}
        wanted={p.wanted}
      />
    </div>
  );
};
