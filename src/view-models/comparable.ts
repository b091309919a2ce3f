import type { Machine, MeasuredMachine } from '@/core/machine/machine';
import { inForce, type TestRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import type { Bench } from '@/server/services/measuring/bench';

/** How many of the newest tests go to the bench besides the baselines: enough for "the test before" of any rig in use. */
const RECENT = 30;

/** The standing, usable series tests that a new one may be judged against, oldest first. */
export const comparable = ({ tests }: Bench): readonly TestRecord[] => {
  const usable = inForce(tests).filter((t) => isSeries(t) && t.test.failedPreconditions.length === 0);
  return usable.filter((t, i) => t.isBaseline || i >= usable.length - RECENT);
};

/** The machine as the measuring pad sees it: its histories stay on the server. */
export const measuredMachine = (m: Machine): MeasuredMachine => ({
  id: m.id,
  tag: m.tag,
  name: m.name,
  kind: m.kind,
  maker: m.maker,
  place: m.place,
  machineClass: m.machineClass,
  nominalVolts: m.nominalVolts,
  inServiceOn: m.inServiceOn,
  timeZone: m.timeZone,
  stages: m.stages,
  hasBrush: m.hasBrush,
  hoseBoreM: m.hoseBoreM,
  hoseLengthM: m.hoseLengthM,
  hoseSelectorM: m.hoseSelectorM,
  wetSet: m.wetSet,
});
