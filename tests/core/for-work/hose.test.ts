import { MACHINE_KINDS } from '@/core/machine/kinds';
import { afterAll, describe, expect, it } from 'vitest';
import { AS_NEW } from '@/core/path/as-new';
import type { MachineModel } from '@/core/path/machine-path';
import { airPathOf } from '@/core/path/machine-path';
import { templateParameters } from '@/core/path/pressure-profile';
import { stageTemplate } from '@/core/machine/stage-templates';
import { SEAL_LEAK } from '@/core/constants/path';
import { distinctHoses, judgeHose, rankHoses } from '@/core/for-work/hose-choice';
import { type Hose, oneBranch, type Predicted, predictThrough, type Standing, throughY } from '@/core/for-work/predict';
import { openTwin, twinNetwork, type TwinSolver } from '../../support/epanet-network';

const standingOf = (kind: 'mExtractor' | 'grinderExtractor'): Standing => {
  const model: MachineModel = {
    stages: MACHINE_KINDS[kind].path.map((k, i) => ({
      id: i + 1,
      kind: k,
      name: k,
      missing: false,
      spec: stageTemplate(k, kind),
    })),
    hoseBoreM: 0.036,
    hoseLengthM: 3,
  };
  const parameters = templateParameters(model, SEAL_LEAK.value);
  return { model, parameters, state: AS_NEW, basis: { kind: 'template', why: null, observations: 0 } };
};
/** As the network solver can hold it: a wall of a roughness, and a fan whose curve is straight. */
const plain = (s: Standing): Standing => ({
  ...s,
  model: {
    ...s.model,
    stages: s.model.stages.map((stage) => {
      const { air } = stage.spec;
      if (air.form === 'line')
        return {
          ...stage,
          spec: { ...stage.spec, air: { ...air, friction: { by: 'roughness' as const, roughnessM: 5e-4 } } },
        };
      if (air.form === 'fan' && air.curve.kind === 'universal')
        return { ...stage, spec: { ...stage.spec, air: { ...air, curve: { ...air.curve, a: 1 } } } };
      return stage;
    }),
  },
});

const hose = (mm: number, lengthM: number): Hose => ({ boreM: mm / 1000, lengthM });
const flow = (s: Standing, h: Hose): Predicted => {
  const p = predictThrough(s, h);
  if (!p) throw new Error('no answer');
  return p;
};

describe('the choice against a general network solver (epanet-js)', () => {
  const open: TwinSolver[] = [];
  afterAll(() => open.forEach((t) => t.close()));

  it.each([
    [27, 3, 1],
    [27, 10, 1],
    [36, 3, 1],
    [36, 10, 1],
    [50, 10, 1],
    // Two tools through a Y, each with a hose of its own.
    [27, 4, 2],
    [36, 8, 2],
  ])('%s mm of %s m, %s tool(s): the air at each tool within 0.5 %%', async (mm, lengthM, tools) => {
    const own = plain(standingOf('mExtractor'));
    const standing = tools === 2 ? throughY(own) : own;
    const made = airPathOf(standing.model, standing.parameters, { ...AS_NEW, hose: hose(mm, lengthM) });
    if (!made.ok) throw new Error('no path');
    const twin = await openTwin(twinNetwork(made.value), made.value.air);
    open.push(twin);
    const theirs = twin.solve() / tools;
    const ours = flow(standing, hose(mm, lengthM));
    expect(theirs).toBeGreaterThan(0.005);
    expect(Math.abs(ours.flowM3s / theirs - 1)).toBeLessThan(0.005);
    // Velocity is flow over the bore: 1 L/s in 36 mm is 0.98 m/s.
    expect(ours.velocityMs).toBeCloseTo(ours.flowM3s / ((Math.PI * (mm / 1000) ** 2) / 4), 9);
  });
});

describe('what the trade knows of hoses (common practice, no published source)', () => {
  const s = standingOf('mExtractor');

  it('a narrow hose keeps the dust moving, a wide one gives the tool its air', () => {
    const [narrow, wide] = [flow(s, hose(27, 4)), flow(s, hose(50, 4))];
    expect(narrow.velocityMs).toBeGreaterThan(wide.velocityMs);
    expect(narrow.flowM3s).toBeLessThan(wide.flowM3s);
    const limits = { mustM3s: 1.01 * narrow.highM3s, hoseMs: 1.01 * wide.highMs };
    expect([judgeHose(narrow, limits), judgeHose(wide, limits)]).toEqual(['tooLittle', 'tooSlow']);
    // Where the interval reaches the need it is no flat no: it is measured at the tool.
    const between = { mustM3s: (narrow.flowM3s + narrow.highM3s) / 2, hoseMs: null };
    expect(judgeHose(narrow, between)).toBe('perhaps');
  });

  it('a longer hose gives less, and two tools by a Y less than one and more than half of it', () => {
    expect(flow(s, hose(36, 10)).flowM3s).toBeLessThan(flow(s, hose(36, 3)).flowM3s);
    const [one, two] = [flow(s, hose(36, 3)).flowM3s, flow(throughY(s), hose(36, 3)).flowM3s];
    expect(two).toBeLessThan(one);
    expect(two).toBeGreaterThan(one / 2);
  });

  it('a machine with a Y gives one tool more when its other branch is plugged', () => {
    const g = standingOf('grinderExtractor');
    expect(throughY(g)).toBe(g);
    // Its Y sits at the tool end: the hose carries the air of both, and there is no second one.
    const shared = flow(g, hose(50, 3));
    expect(shared.toolsOnHose).toBe(2);
    expect(shared.velocityMs).toBeCloseTo((2 * shared.flowM3s) / ((Math.PI * 0.05 ** 2) / 4), 9);
    expect(flow(throughY(s), hose(50, 3)).toolsOnHose).toBe(1);
    expect(flow(oneBranch(g), hose(50, 3)).flowM3s).toBeGreaterThan(flow(g, hose(50, 3)).flowM3s);
  });

  it('a machine nobody measured is known less well than its own figure, and another hose less than its own', () => {
    const [own, other] = [flow(s, hose(36, 3)), flow(s, hose(36, 3.5))];
    const width = (p: Predicted) => Math.log(p.highM3s / p.lowM3s);
    expect(own.lowM3s).toBeLessThan(own.flowM3s);
    // A template may be a quarter off in its lift and a third in its flow: no narrow interval can come of that.
    expect(width(own)).toBeGreaterThan(0.4);
    expect(width(other)).toBeGreaterThan(width(own) * 0.99);
  });

  it('the sure ones come first, then the own one, then the most air; every size once', () => {
    const p = (mm: number, flowM3s: number, spread: number): Predicted => ({
      hose: hose(mm, 3),
      flowM3s,
      lowM3s: flowM3s - spread,
      highM3s: flowM3s + spread,
      velocityMs: 30,
      toolsOnHose: 1,
      lowMs: 25,
      highMs: 35,
    });
    const all = [p(27, 0.02, 0), p(32, 0.03, 0.01), p(36, 0.031, 0), p(50, 0.04, 0)];
    const order = rankHoses(
      all.map((predicted) => ({ predicted, beside: null })),
      { mustM3s: 0.025, hoseMs: 20 },
      hose(36, 3),
    );
    expect(order.map((l) => [l.predicted.hose.boreM, l.verdict])).toEqual([
      [0.036, 'does'],
      [0.05, 'does'],
      [0.032, 'perhaps'],
      [0.027, 'tooLittle'],
    ]);
    expect(distinctHoses([hose(36, 3), hose(36.2, 3.02), hose(36, 4)])).toEqual([hose(36, 3), hose(36, 4)]);
  });
});
