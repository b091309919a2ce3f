import type { StageOutlook } from '@/core/forecast/from-record';
import { lastingOf, type StageLasting } from '@/core/forecast/lasting';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import { forecastRecord, type MachineRecords } from './outlooks';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

export interface MachineOutlook {
  readonly machine: Machine;
  readonly outlooks: readonly StageOutlook[];
  readonly due: readonly StageDue[];
}

export interface YardOutlook {
  readonly yard: Yard;
  readonly machines: readonly MachineOutlook[];
}

/** Hours that the worn stages of a machine last, and their chance to last a number of run hours. */
export const lastingIn = (
  { yard, ...records }: MachineRecords & { readonly yard: Yard },
  hours: number | null,
): readonly StageLasting[] => lastingOf(forecastRecord(yard, records), hours);

/** When each ruled stage of the yard reaches its first limit, as chances: the same as on the board. */
export const loadOutlook = async (context: Pick<Context, 'db' | 'now'>, yard?: Yard): Promise<YardOutlook> => {
  const here = yard ?? (await loadYard(context));
  // Nothing is planned on a machine that only others may touch.
  const workable = here.machines.filter(({ machine }) => machine.dust.standing.refusal === null);
  return { yard: here, machines: workable.map(({ machine, outlooks, due }) => ({ machine, outlooks, due })) };
};
