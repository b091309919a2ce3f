import { type ModelledMachine, modelledMachine } from '@/core/calibrate/machine-model';
import { type PathView, pathViewOf } from '@/core/calibrate/path-view';
import { todayOf } from '@/core/calibrate/today';
import { dayAt } from '@/core/calendar/calendar-date';
import type { MachineStatus } from '@/core/status/machine-status';
import { loadChanges } from '../../repositories/changes';
import { loadTests } from '../../repositories/tests';
import type { Bench } from './bench';
import type { Context } from '../yard/user-action';
import { type Yard, yardMachine } from '../yard/yard';

export interface AirPathPage {
  readonly modelled: ModelledMachine;
  readonly view: PathView;
}

/** Every new record of a machine makes a new status object, so its air path is cached as long as the status lives. */
const known = new WeakMap<MachineStatus, AirPathPage>();

/** A machine's air path: calibrated on its baselines, loaded as its newest readings say. */
export const airPathOfBench = (bench: Pick<Bench, 'status' | 'tests' | 'changes' | 'yard'>): AirPathPage => {
  const made = known.get(bench.status) ?? makeAirPath(bench);
  known.set(bench.status, made);
  return made;
};

const makeAirPath = ({ status, tests, changes, yard }: Parameters<typeof airPathOfBench>[0]): AirPathPage => {
  const { machine } = status;
  const modelled = modelledMachine(machine, tests);
  const today = todayOf({ machine, modelled, tests, changes, dayOf: (moment) => dayAt(moment, yard.site.timeZone) });
  return { modelled, view: pathViewOf(machine, modelled, today) };
};

export interface Face {
  readonly yard: Yard;
  readonly status: MachineStatus;
  readonly view: PathView;
}

/**
 * The first page of a machine: its status and its air path, without its years of records; null when no machine has the
 * tag.
 */
export const loadFace = async (context: Context, tag: string): Promise<{ yard: Yard; face: Face | null }> => {
  const { yard, status } = await yardMachine(context, tag);
  if (!status) return { yard, face: null };
  const { id } = status.machine;
  const { view } =
    known.get(status) ??
    airPathOfBench({
      yard,
      status,
      tests: await loadTests(context.db, id),
      changes: await loadChanges(context.db, yard.site.timeZone, id),
    });
  return { yard, face: { yard, status, view } };
};
