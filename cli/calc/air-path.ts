import type { AirPathInput, AirPathOutput } from '@/contracts/calc/air-path';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { OPEN_PLACE } from '@/core/path/model/element';
import { type Drive, type FanPeak, fanPeak, speedRatioOfVoltage } from '@/core/path/model/fan';
import { type AirPath, checkPath, type Condition, withElements } from '@/core/path/model/path';
import { type OperatingPoint, solvePath } from '@/core/path/model/solve';
import { airOf, chainOf } from './path-input';
import { collect, inSi, readQuantity } from './quantities';

const driveOf = (d: AirPathInput['drive']): Result<Drive> => {
  const read = collect([
    readQuantity(d.volts ?? d.nominalVolts, 'voltage', 'volts'),
    readQuantity(d.nominalVolts, 'voltage', 'nominalVolts'),
    readQuantity(d.supply ?? 0, 'pressure', 'supply'),
  ]);
  if (!read.ok) return read;
  const [volts = 0, nominalVolts = 0, supply = 0] = read.value;
  if (!(volts > 0 && nominalVolts > 0)) return fail(failure('path.drive', 'volts', { value: volts }));
  return ok({
    speedRatio: d.speedRatio ?? speedRatioOfVoltage({ volts, nominalVolts }),
    supplyPa: d.supply === undefined ? null : supply,
  });
};

const conditionOf = (input: AirPathInput): Result<Condition> => {
  const base = { mouths: [], closedAt: input.closedAt ?? null };
  const { enter } = input;
  if (!enter) return ok({ ...base, start: null });
  if (enter.state === 'open') return ok({ ...base, start: { node: enter.node, state: 'open' } });
  const flow = enter.state === 'sealed' ? ok(0) : readQuantity(enter.flow ?? 0, 'flow', 'enter.flow');
  return flow.ok ? ok({ ...base, start: { node: enter.node, state: 'drawn', flowM3s: flow.value } }) : flow;
};

const pathOf = (input: AirPathInput): Result<AirPath> => {
  const [trunk, drive, air] = [chainOf(input), at('drive', driveOf(input.drive)), airOf(input.air)];
  const mouths = collect(input.mouths.map((m, i) => at(`mouths.${i}`, chainOf(m))));
  if (!trunk.ok || !drive.ok || !air.ok || !mouths.ok)
    return fail(...[trunk, drive, air, mouths].flatMap((r) => (r.ok ? [] : r.failures)));
  const stray = input.removed.findIndex(
    (i) => trunk.value.elements[i] === undefined || trunk.value.elements[i].kind === 'fan',
  );
  if (stray >= 0)
    return fail(
      failure('path.node', `removed.${stray}`, {
        node: input.removed[stray] ?? 0,
        most: trunk.value.elements.length - 1,
      }),
    );
  const path = { trunk: trunk.value, mouths: mouths.value, drive: drive.value, air: air.value };
  return ok(withElements(path, new Map(input.removed.map((i) => [i, OPEN_PLACE]))));
};

const output = (path: AirPath, p: OperatingPoint, peak: FanPeak): AirPathOutput => ({
  status: p.status,
  iterations: p.iterations,
  residual: p.residual,
  toolFlow: inSi(p.toolFlowM3s, 'flow'),
  fanFlow: inSi(p.fanFlowM3s, 'flow'),
  fanLift: inSi(p.fanLiftPa, 'pressure'),
  fanPeak: {
    airPower: inSi(peak.airPowerW, 'power'),
    flow: inSi(peak.flowM3s, 'flow'),
    lift: inSi(peak.liftPa, 'pressure'),
    inside: peak.inside,
  },
  startPressure: inSi(p.pressuresPa[0] ?? 0, 'pressure'),
  steps: path.trunk.elements.map((e, position) => {
    const drop = (p.pressuresPa[position] ?? 0) - (p.pressuresPa[position + 1] ?? 0);
    return {
      position,
      kind: e.kind,
      flow: inSi(p.flowsM3s[position] ?? 0, 'flow'),
      drop: inSi(drop, 'pressure'),
      shareOfLift: e.kind === 'fan' ? 0 : drop / p.fanLiftPa,
      pressureAfter: inSi(p.pressuresPa[position + 1] ?? 0, 'pressure'),
    };
  }),
  leaks: p.inflowsM3s.flatMap((q, node) => (q === 0 ? [] : [{ node, inflow: inSi(q, 'flow') }])),
  mouthFlows: p.mouths.map((m) => inSi(m.flowsM3s[0] ?? 0, 'flow')),
});

/** `calc air-path`: elements, leaks and fan in, the operating point and the pressure staircase out. */
export const airPath = (input: AirPathInput): Result<AirPathOutput> => {
  const [path, condition] = [pathOf(input), conditionOf(input)];
  if (!path.ok || !condition.ok) return fail(...[path, condition].flatMap((r) => (r.ok ? [] : r.failures)));
  const [point, fan] = [solvePath(path.value, condition.value), checkPath(path.value)];
  // The trunk has no name in the input: its elements are at the top level.
  if (point.ok) return fan.ok ? ok(output(path.value, point.value, fanPeak(fan.value))) : fan;
  return fail(...point.failures.map((f) => ({ ...f, path: f.path.replace(/^trunk\./, '') })));
};
