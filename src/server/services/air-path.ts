import { type ModelledMachine, modelledMachine } from '@/core/calibrate/machine-model';
import { type PathView, pathViewOf } from '@/core/calibrate/path-view';
import { todayOf } from '@/core/calibrate/today';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Bench } from './bench';

export interface AirPathPage {
  readonly modelled: ModelledMachine;
  readonly view: PathView;
}

/** A machine's air path: calibrated on its baselines, loaded as its newest readings say. */
export const airPathOfBench = ({ status, tests, changes, yard }: Bench): AirPathPage => {
  const { machine } = status;
  const modelled = modelledMachine(machine, tests);
  const today = todayOf({ machine, modelled, tests, changes, dayOf: (moment) => dayAt(moment, yard.site.timeZone) });
  return { modelled, view: pathViewOf(machine, modelled, today) };
};
