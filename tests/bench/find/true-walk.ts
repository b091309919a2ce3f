import { needlessMinutes } from '@/core/diagnose/loss';
import { CLEAN_STATE } from '../../support/machines';
import { endingOf } from './score';
import { trueCase } from './true-case';
import { trueFlow } from './true-machine';
import type { WalkCase } from './walk-case';
import { left, watch } from './watch';

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
    repairMinutes: (repair) => needlessMinutes(repair, c.hazard),
    countsNeeded: false,
  };
};
