import { EXPOSURE_MINUTES } from '@/core/diagnose/operation';
import type { RepairKind } from '@/core/diagnose/repair';
import { CLEAN_STATE } from '../../support/machines';
import { endingOf } from './score';
import { trueCase } from './true-case';
import { trueFlow } from './true-machine';
import type { WalkCase } from './walk-case';
import { left, watch } from './watch';

/** What a repair costs in the first world: its time, its exposure, and what it spends, whatever the part. */
const REPAIRS: Record<RepairKind, readonly [minutes: number, exposure: number, part: number]> = {
  newPart: [3, 2, 12],
  reseat: [2, 2, 0],
  clear: [4, 1, 0],
  newHose: [2, 0, 12],
  newSeal: [5, 0, 5],
  serviceFan: [10, 0, 40],
  supply: [2, 0, 0],
  settings: [0.5, 0, 0],
  indicator: [5, 0, 20],
  brush: [5, 1, 0],
};

/** A case of the first world, whose air is the engine's own with other figures. */
export const firstWorldCase = (seed: number): WalkCase => {
  const c = trueCase(seed);
  return {
    seed,
    kind: c.machine.kind,
    known: c.machine.known,
    faults: c.faults,
    traits: c.traits,
    hazard: c.hazard,
    complaint: c.complaint,
    record: c.record,
    byAir: c.supplyPa !== null,
    watch: (operation, interventions) => watch(operation, c, interventions),
    left: (repairs) => left(c, repairs),
    ending: (repairs) => endingOf(c, repairs),
    soundFlow: (place) => trueFlow({ ...c.machine, state: CLEAN_STATE }, place),
    repairMinutes: ({ kind }) => {
      const [minutes, exposure, part] = REPAIRS[kind];
      return minutes + exposure * EXPOSURE_MINUTES[c.hazard] + part;
    },
    countsNeeded: false,
  };
};
