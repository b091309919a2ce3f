import type { CalibrateInput, CalibrateOutput } from '@/contracts/calc/air-path';
import { type Calibration, calibrate as fit } from '@/core/calibrate/calibrate';
import type { Observation } from '@/core/calibrate/observation';
import { AS_NEW } from '@/core/path/as-new';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { orificeFlowM3s } from '@/core/measure/orifice';
import { gapOfPlace } from '@/core/path/path-places';
import { type MachineModel } from '@/core/path/machine-path';
import { REFERENCE_AIR } from '@/core/path/model/air';
import type { Entry } from '@/core/path/pressure-profile';
import { sayPathBasis } from '@/messages/air-path';
import { machineOf } from './path-input';
import { collect, inSi, readQuantity } from './quantities';

type Reading = CalibrateInput['readings'][number];

/** Half width of a reading without a stated uncertainty: 6 % at 95 %. */
const UNSTATED = 0.06;
const PLATE_SHARE = 0.01;
const ROOM_PA = 101_325;

const flowThrough = (orificeM: number, coefficient: number, pa: number): number =>
  orificeFlowM3s({
    orificeM,
    coefficient,
    differentialPa: pa,
    upstreamPa: ROOM_PA,
    densityKgM3: REFERENCE_AIR.densityKgM3,
    pipeM: null,
  });

const observationOf = (r: Reading, model: MachineModel): Result<Observation> => {
  const kind = r.what === 'flow' ? 'flow' : 'pressure';
  const read = collect([
    readQuantity(r.value, kind, 'value'),
    readQuantity(r.expanded ?? 0, kind, 'expanded'),
    readQuantity(r.what === 'orifice' ? r.orifice : 0, 'length', 'orifice'),
  ]);
  if (!read.ok) return read;
  const [signed = 0, stated = 0, orificeM = 0] = read.value;
  const value = r.what === 'flow' ? signed : Math.abs(signed);
  if (!(value >= 0))
    return fail(failure('quantity.negative', 'value', { number: value, unit: kind === 'flow' ? 'm3/s' : 'Pa' }));
  const expanded = r.expanded === undefined ? value * UNSTATED : stated;
  if (!(expanded > 0))
    return fail(failure('path.range', 'expanded', { field: 'expanded', value: expanded, low: 0, high: value }));
  const base = {
    label: `${r.what} at ${r.place}`,
    testId: null,
    value,
    expanded,
    standardUncertainty: expanded / 2,
    state: AS_NEW,
  };
  const node = gapOfPlace(
    model.stages.map((s) => s.kind),
    r.place,
  );
  const entry: Entry =
    r.place === 'toolEnd' || r.place === 'outlet' ? { at: 'use' } : { at: 'node', opening: { node, state: 'open' } };
  switch (r.what) {
    case 'flow':
      return ok({ ...base, what: 'flow', entry, at: r.place === 'outlet' ? 'out' : 'in' });
    case 'sealed':
      return ok({ ...base, what: 'suction', node, drawnM3s: 0, drawnUncertaintyM3s: 0 });
    case 'orifice': {
      if (!(orificeM > 0 && orificeM < 1)) return fail(failure('orifice.missing', 'orifice'));
      if (!(value <= ROOM_PA / 4)) return fail(failure('orifice.pressure', 'value'));
      const drawnM3s = flowThrough(orificeM, r.coefficient, value);
      return ok({
        ...base,
        what: 'suction',
        node,
        drawnM3s,
        drawnUncertaintyM3s: (drawnM3s * PLATE_SHARE) / Math.sqrt(3),
      });
    }
    case 'stageDp': {
      const position = model.stages.findIndex((s) => s.kind === r.stage || s.name === r.stage);
      return position < 0
        ? fail(failure('stage.unknown', 'stage', { tag: 'This kind of machine' }))
        : ok({ ...base, what: 'stageDp', entry, position });
    }
  }
};

const UNITS = { p0Pa: 'Pa', qMaxM3s: 'm3/s', leakM2: 'm2', pathScale: '1' } as const;

const output = (c: Calibration): CalibrateOutput => ({
  status: c.status,
  iterations: c.iterations,
  parameters: c.fitted.map((f) => ({
    name: f.name,
    value: f.value,
    low: f.low,
    high: f.high,
    unit: UNITS[f.name],
    learned: f.learned,
  })),
  readings: c.compared.map(({ observation: o, predicted, residual, weighted, agrees }) => {
    const kind = o.what === 'flow' ? 'flow' : 'pressure';
    return {
      label: o.label,
      measured: inSi(o.value, kind),
      model: inSi(predicted, kind),
      residual: inSi(residual, kind),
      weighted,
      agrees,
    };
  }),
  chiSquare: c.chiSquare,
  degreesOfFreedom: c.degreesOfFreedom,
  sentence: sayPathBasis(
    { kind: 'calibrated', readings: c.compared.length, agreeing: c.compared.filter((x) => x.agrees).length },
    null,
  ).sentence,
});

/** `calc calibrate`: a kind of machine and its baseline readings in, fan, leak and path with their intervals out. */
export const calibrate = (input: CalibrateInput): Result<CalibrateOutput> => {
  const machine = machineOf(input.machine);
  if (!machine.ok) return machine;
  const observations = collect(
    input.readings.map((r, i) => at(`readings.${i}`, observationOf(r, machine.value.model))),
  );
  if (!observations.ok) return observations;
  const fitted = fit(machine.value.model, observations.value);
  return fitted.ok ? ok(output(fitted.value)) : fitted;
};
