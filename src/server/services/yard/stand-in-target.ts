import { MACHINE_KINDS } from '@/core/machine/kinds';
import { boreAreaM2 } from '@/core/measure/bore-flow';
import { METHODS, type Method } from '@/core/measure/methods';
import type { Place } from '@/core/measure/place';
import { mean } from '@/core/numeric/moments';
import { inForce, type TestRecord } from '@/core/record/records';
import { fromSi, SHOWN } from '@/core/units';
import type { StandIn } from '../../instruments/stand-in-meter';
import { type Bench, loadBench } from '../measuring/bench';
import type { Context } from './user-action';

const NOMINAL_BORE_M = 0.05;
const TYPICAL_AMPERES = 5;

const ofRig = (tests: readonly TestRecord[], wanted: { method: Method; place: Place }) =>
  inForce(tests).filter(
    (t) => t.test.method === wanted.method && t.test.place === wanted.place && t.test.readingsSi.length > 0,
  );

/** The middle value of its kind, without records of this rig. In the SI unit of the reading. */
const typical = (bench: Bench, method: Method): number => {
  const { flowM3s, suctionPa } = MACHINE_KINDS[bench.status.machine.kind];
  const flow = (flowM3s[0] + flowM3s[1]) / 4;
  switch (METHODS[method].reads) {
    case 'flow':
      return flow;
    case 'velocity':
      return flow / boreAreaM2(bench.status.machine.hoseBoreM ?? NOMINAL_BORE_M);
    case 'count':
      return 40;
    case 'voltage':
      return bench.status.machine.nominalVolts;
    case 'current':
      return TYPICAL_AMPERES;
    default:
      return (suctionPa[0] + suctionPa[1]) / 2;
  }
};

/**
 * The settled reading of a meter on this machine now, SI: its last test of the same rig, or its baseline once a stage
 * was changed since. Replaces the machine itself, for the demo and for practice.
 */
export const standInTarget = (bench: Bench, wanted: { method: Method; place: Place }): number => {
  const tests = ofRig(bench.tests, wanted);
  const last = tests.at(-1);
  if (!last) return typical(bench, wanted.method);
  const changedSince = inForce(bench.changes).some((c) => c.performedAt > last.performedAt);
  const baseline = tests.findLast((t) => t.isBaseline);
  return mean((changedSince && baseline ? baseline : last).test.readingsSi);
};

const NOISE = 0.008;
/** An anemometer, a flow meter, a manometer, a particle counter and a power meter are on the bench. */
const STREAMED = ['velocity', 'flow', 'pressure', 'count', 'voltage', 'current'] as const;

/** The stand-in for a meter on a machine now; null for an unknown machine or a method no meter streams. */
export const standInFor = async (
  context: Context,
  wanted: { tag: string; method: Method; place: Place },
): Promise<StandIn | null> => {
  const { reads } = METHODS[wanted.method];
  const quantity = STREAMED.find((q) => q === reads);
  if (!quantity) return null;
  const { bench } = await loadBench(context, wanted.tag);
  if (!bench) return null;
  const { unit } = SHOWN.metric[reads];
  const target = fromSi(reads, standInTarget(bench, wanted), unit);
  return {
    quantity,
    unit,
    target: quantity === 'count' ? Math.round(target) : target,
    noise: quantity === 'count' ? 0 : NOISE,
  };
};
