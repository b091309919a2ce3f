import { OpenCaseReply } from '@/contracts/find';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { type CaseRecord, type CaseState, caseState } from '@/core/diagnose/case-log';
import { type CaseSetup, caseSetup } from '@/core/diagnose/case-setup';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { worst } from '@/core/dust/level';
import { inForce } from '@/core/record/records';
import { loadChanges } from '../../repositories/changes';
import { loadCases } from '../../repositories/cases';
import { loadTests } from '../../repositories/tests';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

export interface FindPage {
  /** The case at hand: the newest that is not ended; null without one. */
  readonly open: { readonly record: CaseRecord; readonly state: CaseState } | null;
  /** The machine's earlier cases, newest first. */
  readonly earlier: readonly CaseRecord[];
  readonly setup: CaseSetup;
  /** Changes recorded since the case was opened, newest first. */
  readonly changes: readonly { readonly id: number; readonly stageId: number; readonly at: string }[];
}

const ended = (c: CaseRecord): boolean => caseState(c).ended !== null;

/** The data of the Find activity of one machine, and the basis for weighing its case. */
export const loadFind = async ({ db, now }: Context, yard: Yard, machineId: number): Promise<FindPage> => {
  const status = yard.machines.find((m) => m.machine.id === machineId);
  if (!status) throw new Error(`no machine ${machineId}`);
  const { machine } = status;
  const [tests, changes, cases] = [
    await loadTests(db, machineId),
    await loadChanges(db, yard.site.timeZone, machineId),
    await loadCases(db),
  ];
  const own = cases.filter((c) => c.machineId === machineId);
  const found = own.findLast((c) => !ended(c)) ?? null;
  // A case opened before the machine collected worse goes on as the worse demands.
  const record = found && { ...found, hazard: worst([found.hazard, machine.hazard]) };
  const kin = yard.machines
    .filter(({ machine: m }) => m.id !== machine.id && m.kind === machine.kind && m.maker === machine.maker)
    .map((m) => m.machine.id);
  const setup = caseSetup({
    machine,
    modelled: modelledMachine(machine, tests),
    tests,
    changes,
    due: status.due,
    own: own.filter((c) => c.id !== record?.id),
    twins: cases.filter((c) => kin.includes(c.machineId)),
    at: record?.openedAt ?? now(),
  });
  const since = record ? inForce(changes).filter((c) => c.performedAt >= record.openedAt) : [];
  return {
    changes: since.map(({ id, stageId, performedAt }) => ({ id, stageId, at: performedAt })).reverse(),
    open: record ? { record, state: caseState(record) } : null,
    earlier: own.filter((c) => c.id !== record?.id).reverse(),
    setup,
  };
};

/** The same, with the yard loaded for it; null when there is no machine of that tag. */
export const findOfTag = async (
  context: Context,
  tag: string,
): Promise<{ readonly yard: Yard; readonly machineId: number; readonly page: FindPage } | null> => {
  const yard = await loadYard(context);
  const wanted = tag.trim().toUpperCase();
  const status = yard.machines.find((m) => m.machine.tag.toUpperCase() === wanted);
  return status ? { yard, machineId: status.machine.id, page: await loadFind(context, yard, status.machine.id) } : null;
};

/** The open case, as sent to the page. */
export const replyOf = ({ open, changes }: FindPage): OpenCaseReply => ({
  record: open ? OpenCaseReply.shape.record.parse(structuredClone(open.record)) : null,
  changes: [...changes],
});

/** The open case of a machine, for reloading its page; `machine.unknown` for another tag. */
export const openCaseOf = async (context: Context, tag: string): Promise<Result<OpenCaseReply>> => {
  const found = await findOfTag(context, tag);
  if (!found) return fail(failure('machine.unknown', '', { tag }));
  return ok(replyOf(found.page));
};
