import { loadOfFlow, withLoads } from '@/core/calibrate/load';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { AS_NEW } from '@/core/path/as-new';
import { modelOfSnapshot } from '@/core/machine/path-edit';
import { reduceTest } from '@/core/measure/reduce-test';
import { upgradeFigures } from '@/core/upgrade/gain';
import { loadPathEdits } from '@/server/repositories/machine-edits';
import { findMachine } from '@/server/repositories/machines';
import { loadTests } from '@/server/repositories/tests';
import { insertUpgrade, insertUpgradeEvent } from '@/server/repositories/upgrades';
import { CREW, momentOf, type Seeding } from './seeding';

/** Heron's cloth bag became a canister: planned the day before it was cut, with what the model predicts of it, and booked. */
export const insertUpgrades = async (s: Seeding): Promise<void> => {
  const machine = await findMachine(s.db, 'CR-01');
  const [edit] = machine ? await loadPathEdits(s.db, machine.id) : [];
  const stage = machine?.stages.find((x) => x.kind === 'canister');
  if (!machine || !edit || stage?.spec.air.form !== 'medium') throw new Error('the demo has no canister on CR-01');
  const tests = await loadTests(s.db, machine.id);
  const before = tests.findLast((t) => t.performedAt < edit.performedAt);
  const { parameters, basis } = modelledMachine(machine, tests);
  const steps = [edit.before, edit.after].map((path) => ({ path, leakM2: null }));
  if (!before) throw new Error('nothing was measured of CR-01 before its canister');
  // As the upgrade desk does it: the cloth carries the load that the test before shows.
  const flowM3s = reduceTest(before.test);
  const cloth = edit.before.stages.findIndex((x) => x.kind === 'cloth');
  const load = loadOfFlow({
    model: modelOfSnapshot(edit.before),
    parameters,
    state: AS_NEW,
    flowM3s: flowM3s.ok ? flowM3s.value.repeats.mean : 0,
    weights: new Map([[cloth, 1]]),
  });
  const today = load.ok ? withLoads(AS_NEW, load.value) : AS_NEW;
  const figures = upgradeFigures({ steps, parameters, basis, today });
  if (!figures.ok) throw new Error('nothing can be predicted of CR-01');
  const [first, last] = [figures.value[0], figures.value.at(-1)];
  if (!first || !last) throw new Error('nothing can be predicted of CR-01');
  const { medium, areaM2, inParallel } = stage.spec.air;
  const [planner, maker] = [CREW[2], CREW[0]];
  const id = await insertUpgrade(s.db, {
    machineId: machine.id,
    at: momentOf(s, 306),
    by: planner,
    note: 'The cloth blows fines back into the shop and blinds by noon.',
    changes: [{ kind: 'medium', stageId: stage.id, medium, areaM2: areaM2 * inParallel }],
    price: 260,
    predicted: { flowM3s: first.flow.value, ratio: last.ratio },
  });
  await insertUpgradeEvent(s.db, id, {
    at: edit.performedAt,
    by: maker,
    event: { kind: 'booked', editId: edit.id, beforeTestId: before.id, note: edit.note },
  });
};
