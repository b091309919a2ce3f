import { describe, expect, it } from 'vitest';
import { calibrate } from '@/core/calibrate/calibrate';
import { DUST_K2 } from '@/core/constants/media';
import { loadOfChange, loadOfFlow, loadOfStageDp, stageLoad, withHose, withLoads } from '@/core/calibrate/load';
import { baselinesOf } from '@/core/calibrate/machine-model';
import { type Observation, predict } from '@/core/calibrate/observation';
import { curveFit } from '@/core/numeric/curve-fit';
import { leastSquares } from '@/core/numeric/least-squares';
import { SEAL_LEAK } from '@/core/constants/path';
import type { PathParameters } from '@/core/path/machine-path';
import { pressureProfile, templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const model = modelOf(templateMachine('mExtractor'));
const BAG = model.stages.findIndex((s) => s.kind === 'bag');
const MAIN = model.stages.findIndex((s) => s.kind === 'mainFilter');
const TRUTH: PathParameters = { p0Pa: 20_500, qMaxM3s: 0.066, leakM2: 18e-6, pathScale: 1.6 };

type Loose = Observation extends infer O
  ? O extends Observation
    ? Omit<O, 'value' | 'standardUncertainty' | 'expanded' | 'testId' | 'state'>
    : never
  : never;

/** A reading of the true machine, so much off and so well known. */
const taken = (o: Loose, off = 0, relative = 0.01): Observation => {
  const bare = { ...o, testId: 1, state: CLEAN_STATE, value: 1, standardUncertainty: 1, expanded: 2 } as Observation;
  const value = predict(bare, model, TRUTH);
  if (!value.ok) throw new Error('the true machine cannot be read');
  return {
    ...bare,
    value: value.value * (1 + off),
    standardUncertainty: value.value * relative,
    expanded: 2 * value.value * relative,
  };
};

const sealed = (off = 0) =>
  taken({ label: 'sealed', what: 'suction', node: 2, drawnM3s: 0, drawnUncertaintyM3s: 0 }, off);
const hole = (drawnM3s: number, off = 0) =>
  taken({ label: `hole ${drawnM3s}`, what: 'suction', node: 2, drawnM3s, drawnUncertaintyM3s: drawnM3s * 0.005 }, off);
const flow = (off = 0) =>
  taken({ label: 'flow', what: 'flow', at: 'in', entry: { at: 'node', opening: { node: 1, state: 'open' } } }, off);
const across = (off = 0) => taken({ label: 'across', what: 'stageDp', entry: { at: 'use' }, position: MAIN }, off);
const BASELINES = [sealed(), hole(0.015), hole(0.03), flow(), across()];

const fitted = (observations: readonly Observation[]) => {
  const result = calibrate(model, observations);
  if (!result.ok) throw new Error(result.failures.map((f) => f.code).join());
  return result.value;
};

describe('calibration on the baselines', () => {
  it('finds the machine that was read, within the interval it gives, and agrees with every reading', () => {
    const { fitted: found, compared, status, chiSquare } = fitted(BASELINES);
    expect(status).toBe('converged');
    for (const f of found.filter((x) => x.learned)) {
      expect(TRUTH[f.name], f.name).toBeGreaterThan(f.low);
      expect(TRUTH[f.name], f.name).toBeLessThan(f.high);
    }
    expect(found.filter((f) => f.learned).map((f) => f.name)).toEqual(
      expect.arrayContaining(['p0Pa', 'qMaxM3s', 'pathScale']),
    );
    expect(compared.every((c) => c.agrees)).toBe(true);
    expect(chiSquare).toBeLessThan(1);
  });

  it('keeps its residuals, and better readings narrow its intervals', () => {
    const noisy = [sealed(0.01), hole(0.015, -0.012), hole(0.03, 0.008), flow(-0.015), across(0.01)];
    const c = fitted(noisy);
    c.compared.forEach((x) => expect(x.residual).toBeCloseTo(x.predicted - x.observation.value, 9));
    const width = (list: readonly Observation[]) => {
      const p = fitted(list).fitted.find((f) => f.name === 'qMaxM3s');
      return Math.log((p?.high ?? 0) / (p?.low ?? 1));
    };
    expect(width(BASELINES.map((o) => ({ ...o, standardUncertainty: o.standardUncertainty / 3 })))).toBeLessThan(
      0.6 * width(BASELINES),
    );
  });

  it.each([0.035, -0.035])(
    'a reading off by %d stands outside its own interval, on either side, and is told',
    (off) => {
      const c = fitted([
        sealed(),
        sealed(),
        hole(0.015, off),
        hole(0.0151),
        hole(0.03),
        hole(0.0301),
        flow(),
        across(),
      ]);
      expect(c.compared.filter((x) => !x.agrees).map((x) => x.observation.label)).toEqual(['hole 0.015']);
      expect(Math.sign(c.compared.find((x) => !x.agrees)?.residual ?? 0)).toBe(-Math.sign(off));
    },
  );

  it('what the data do not settle stays at its typical figure and says so', () => {
    const tight = fitted([sealed(), flow()]);
    const leak = tight.fitted.find((f) => f.name === 'leakM2');
    expect(leak?.learned).toBe(false);
    expect(leak?.value ?? 0).toBeGreaterThan(SEAL_LEAK.value / 3);
    expect(leak?.value ?? 1).toBeLessThan(SEAL_LEAK.value * 3);
  });

  it('one point, sealed readings alone, and contradictory readings are refused by name', () => {
    const code = (list: readonly Observation[]) => {
      const result = calibrate(model, list);
      return result.ok ? 'fitted' : result.failures[0];
    };
    expect(code([])).toMatchObject({ code: 'calibration.one-point' });
    expect(code([flow()])).toMatchObject({ code: 'calibration.one-point', facts: { have: 1, need: 2 } });
    expect(code([sealed(), sealed(0.001)])).toMatchObject({ code: 'calibration.one-point' });
    expect(code([sealed(), hole(0.015), hole(0.03), flow(0.5), across()])).toMatchObject({
      code: 'calibration.contradictory',
      facts: { label: 'flow' },
    });
  });

  it('its least squares is the textbook one where the model is straight: against linear least squares (NIST e-Handbook 4.4.3.1)', () => {
    const [x, y] = [
      [1, 2, 3, 4, 5],
      [2.1, 3.9, 6.2, 7.8, 10.1],
    ];
    const fit = curveFit({ start: [0, 0], residuals: ([a = 0, b = 0]) => x.map((xi, i) => a + b * xi - (y[i] ?? 0)) });
    const linear = leastSquares(
      x.map((xi) => [1, xi]),
      y,
    );
    fit?.parameters.forEach((p, i) => expect(p).toBeCloseTo(linear?.coefficients[i] ?? 0, 6));
    fit?.covariance?.forEach((row, i) =>
      row.forEach((v, j) => expect(v).toBeCloseTo(linear?.unscaledCovariance[i]?.[j] ?? 0, 6)),
    );
    expect(curveFit({ start: [0, 0], residuals: () => null })).toBeNull();
  });
});

const question = { model, parameters: TRUTH, state: CLEAN_STATE };
const flowOf = (loads: ReadonlyMap<number, number>) => {
  const s = pressureProfile({ ...question, state: withLoads(CLEAN_STATE, loads) });
  if (!s.ok) throw new Error('unsolved');
  return s.value;
};

describe('solving backwards for a load', () => {
  it('from a stage dp: the load that makes that dp, and no other', () => {
    const loaded = flowOf(new Map([[MAIN, 150_000]]));
    const found = loadOfStageDp({ ...question, position: MAIN, dropPa: loaded.steps[MAIN]?.dropPa ?? 0 });
    expect(found.ok && found.value.loadPaSM3).toBeCloseTo(150_000, -1);
    const clean = (1300 * TRUTH.pathScale) / 0.5;
    expect(found.ok && found.value.timesClean).toBeCloseTo(1 + 150_000 / clean, 3);
  });

  it('from a flow, shared by weight; and from before and after, the old part alone', () => {
    const loads = new Map([
      [BAG, 60_000],
      [MAIN, 30_000],
    ]);
    const measured = flowOf(loads).toolFlowM3s;
    const found = loadOfFlow({
      ...question,
      flowM3s: measured,
      weights: new Map([
        [BAG, 1],
        [MAIN, 0.5],
      ]),
    });
    expect(found.ok && found.value.get(BAG)).toBeCloseTo(60_000, -1);
    expect(found.ok && found.value.get(MAIN)).toBeCloseTo(30_000, -1);
    const after = flowOf(new Map([[MAIN, 30_000]])).toolFlowM3s;
    const old = loadOfChange({
      ...question,
      position: BAG,
      beforeM3s: measured,
      afterM3s: after,
      others: new Map([[MAIN, 1]]),
    });
    expect(old.ok && old.value.loadPaSM3).toBeCloseTo(60_000, -1);
  });

  it('more than clean is no negative load, and no flow at all is no number', () => {
    const clean = flowOf(new Map()).toolFlowM3s;
    const code = (flowM3s: number) => {
      const r = loadOfFlow({ ...question, flowM3s, weights: new Map([[BAG, 1]]) });
      return r.ok ? 'found' : r.failures[0]?.code;
    };
    expect(code(clean * 1.05)).toBe('load.less-than-clean');
    expect(code(0)).toBe('load.no-flow');
    expect(code(clean * 0.9)).toBe('found');
    expect(loadOfStageDp({ ...question, position: 0, dropPa: 100 })).toMatchObject({ ok: false });
  });

  it('refuses a stage without a medium or none at all, and says what the model says where it cannot be solved', () => {
    const noMedium = { ok: false, failures: [{ code: 'stage.unknown', path: 'position', facts: { tag: '' } }] };
    expect(loadOfStageDp({ ...question, position: 0, dropPa: 100 })).toMatchObject(noMedium);
    expect(loadOfStageDp({ ...question, position: 99, dropPa: 100 })).toMatchObject(noMedium);
    const change = { ...question, beforeM3s: 0.02, afterM3s: 0.025, others: new Map([[MAIN, 1]]) };
    expect(loadOfChange({ ...change, position: 0 })).toMatchObject({ ok: false });
    const broken = { ...question, state: { ...CLEAN_STATE, hose: { boreM: 0, lengthM: 3 } } };
    expect(loadOfStageDp({ ...broken, position: MAIN, dropPa: 900 })).toMatchObject({
      ok: false,
      failures: [{ code: 'path.bore' }],
    });
    expect(loadOfStageDp({ ...question, position: MAIN, dropPa: 0.001 })).toMatchObject({
      ok: false,
      failures: [{ code: 'load.less-than-clean' }],
    });
  });

  it('the dust of a load by its own K2, twice the area of twice the bags', () => {
    const dropPa = flowOf(new Map([[MAIN, 150_000]])).steps[MAIN]?.dropPa ?? 0;
    const dust = (q: typeof question, k2PaSMKg?: number) => {
      const r = loadOfStageDp({ ...q, position: MAIN, dropPa, ...(k2PaSMKg === undefined ? {} : { k2PaSMKg }) });
      if (!r.ok) throw new Error('no load');
      return r.value;
    };
    const known = dust(question, 50_000);
    // w = R A / K2 per area, times the area (EPA Cost Manual).
    expect(known.dustKg).toBeCloseTo((known.loadPaSM3 * 0.5 ** 2) / 50_000, 9);
    expect(dust(question, 100_000).dustKg).toBeCloseTo(known.dustKg / 2, 9);
    expect(dust(question).dustKg).toBeCloseTo((known.loadPaSM3 * 0.25) / DUST_K2.value, 9);
    const stages = model.stages.map((s, i) =>
      i === MAIN && s.spec.air.form === 'medium'
        ? { ...s, spec: { ...s.spec, air: { ...s.spec.air, areaM2: 0.25, inParallel: 2 } } }
        : s,
    );
    expect(dust({ ...question, model: { ...model, stages } }, 50_000).dustKg).toBeCloseTo(known.dustKg, 6);
  });

  it('K2 from drag against areal dust: Cooper and Alley, Air Pollution Control, filter drag example (from memory of the source)', () => {
    // Drag 678, 767, 1100 N min/m3 at 90, 135, 270 g/m2: K2 about 2.35 N min/(g m) in the straight part.
    const [w1, w2, s1, s2] = [0.09, 0.27, 678 * 60, 1100 * 60];
    const k2PaSMKg = (s2 - s1) / (w2 - w1);
    const areaM2 = 3;
    const k1 = s1 - k2PaSMKg * w1;
    const load = stageLoad((k2PaSMKg * 0.135) / areaM2, { clean: k1 / areaM2, areaM2, k2PaSMKg });
    expect(load.dustKg / areaM2).toBeCloseTo(0.135, 9);
    // Three readings that are not quite on one line: 3 % is what the example itself leaves.
    expect(Math.abs((load.resistancePaSM3 * areaM2) / 60 / 767 - 1)).toBeLessThan(0.03);
  });

  it('what would the baseline be with a 10 m hose: less, and less again with a narrower one', () => {
    const of = (boreM: number, lengthM: number) => {
      const s = withHose(question, { boreM, lengthM });
      if (!s.ok) throw new Error('unsolved');
      return s.value.toolFlowM3s;
    };
    expect(of(0.036, 4)).toBeCloseTo(flowOf(new Map()).toolFlowM3s, 12);
    expect(of(0.036, 10)).toBeLessThan(0.9 * of(0.036, 4));
    expect(of(0.027, 10)).toBeLessThan(0.7 * of(0.036, 10));
    expect(withHose(question, { boreM: 0, lengthM: 10 })).toMatchObject({
      ok: false,
      failures: [{ code: 'path.bore' }],
    });
  });
});

describe('which baselines speak', () => {
  it('none is needed for a start, and none before the path was led another way', () => {
    expect(templateParameters(model, SEAL_LEAK.value)).toMatchObject({ pathScale: 1, leakM2: SEAL_LEAK.value });
    expect(baselinesOf([], null)).toEqual([]);
  });
});
