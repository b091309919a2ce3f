import { type PathSnapshot, snapshotOf } from '@/core/machine/path-edit';
import { stageTemplate } from '@/core/machine/stage-templates';
import { insertPathEdit } from '@/server/repositories/machine-edits';
import { findMachine } from '@/server/repositories/machines';
import { CREW, momentOf, type Seeding } from './seeding';

interface DemoEdit {
  readonly tag: string;
  readonly daysAgo: number;
  readonly note: string;
  readonly reshapes: boolean;
  /** Turns the present path back into the earlier one. */
  readonly before: (now: PathSnapshot) => PathSnapshot;
}

const EDITS: readonly DemoEdit[] = [
  {
    tag: 'CR-01',
    daysAgo: 305,
    note: 'Adapter ring cut, pleated canister seated on foam strip.',
    reshapes: true,
    before: (now) => ({
      ...now,
      stages: now.stages.map((s) =>
        s.name === 'canister'
          ? {
              ...s,
              id: null,
              kind: 'cloth',
              name: 'cloth bag',
              partId: null,
              spec: {
                ...stageTemplate('cloth', 'singleStageCollector'),
                air: { form: 'medium', medium: 'clothBag', areaM2: 0.65, k1PaSM: null, inParallel: 1 },
              },
            }
          : s,
      ),
    }),
  },
  {
    tag: 'CR-14',
    daysAgo: 8.1,
    note: 'Seen at the bag change: nothing behind the wrap. Came back from service like this.',
    reshapes: false,
    before: (now) => ({ ...now, stages: now.stages.map((s) => ({ ...s, missing: false })) }),
  },
];

/** The edits of air paths in the yard's story, each with the earlier path. */
export const insertPathEdits = async (s: Seeding): Promise<void> => {
  for (const edit of EDITS) {
    const machine = await findMachine(s.db, edit.tag);
    if (!machine) throw new Error(`the demo has no ${edit.tag}`);
    const after = snapshotOf(machine);
    const performedAt = momentOf(s, edit.daysAgo);
    await insertPathEdit(s.db, {
      machineId: machine.id,
      performedAt,
      by: CREW[0],
      note: edit.note,
      before: edit.before(after),
      after,
      reshapes: edit.reshapes,
    });
    for (const stage of machine.stages.filter((x) => x.missing)) {
      await s.db.updateTable('stage').set({ missing_since: performedAt }).where('id', '=', stage.id).execute();
    }
  }
};
