import { modelledMachine } from '@/core/calibrate/machine-model';
import { AS_NEW } from '@/core/calibrate/today';
import { upgradeFigures } from '@/core/upgrade/gain';
import { loadPathEdits } from '@/server/repositories/machine-edits';
import { findMachine } from '@/server/repositories/machines';
import { loadTests } from '@/server/repositories/tests';
import { insertUpgrade, insertUpgradeEvent } from '@/server/repositories/upgrades';
import { CREW, momentOf, type Seeding } from './seeding';

/** Heron's cloth bag became a canister: planned the day before it was cut, with what the model foretells of it, and booked. */
export const insertUpgrades = async (s: Seeding): Promise<void> => {
  const machine = await findMachine(s.db, 'CR-01');
  const [edit] = machine ? await loadPathEdits(s.db, machine.id) : [];
  const stage = machine?.stages.find((x) => x.kind === 'canister');
  if (!machine || !edit || stage?.spec.air.form !== 'medium') throw new Error('the demo has no canister on CR-01');
  const tests = await loadTests(s.db, machine.id);
  const before = tests.findLast((t) => t.performedAt < edit.performedAt);
  const { parameters, basis } = modelledMachine(machine, tests);
  const steps = [edit.before, edit.after].map((path) => ({ path, leakM2: null }));
  const figures = upgradeFigures({ steps, parameters, basis, today: AS_NEW });
  if (!before || !figures.ok) throw new Error('nothing can be foretold of CR-01');
  const [first, last] = [figures.value[0], figures.value.at(-1)];
  if (!first || !last) throw new Error('nothing can be foretold of CR-01');
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
