import { afterEach, describe, expect, it, vi } from 'vitest';
import { traitsOf } from '@/core/diagnose/case-setup';
import { orderOf, operationsOf, SCHOOLS } from '@/core/diagnose/next-test';
import { type FindProof, proveFinding } from '@/core/diagnose/prove-find';
import { notOffered } from '@/core/diagnose/within';
import { DUST_HAZARDS, type DustHazard } from '@/core/dust/level';
import { essentialStage, mayRun } from '@/core/machine/essential';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { modelOf, templateMachine } from '../../support/machines';

const KINDS = Object.keys(MACHINE_KINDS) as readonly MachineKind[];
const CLASSES: readonly (MachineClass | null)[] = [null, 'L', 'M', 'H', 'HEPA'];
const withoutStage = (machine: Machine, kind: string): Machine => ({
  ...machine,
  stages: machine.stages.map((s) => (s.kind === kind ? { ...s, missing: true } : s)),
});
const at = (machine: Machine, kind: string) => machine.stages.findIndex((s) => s.kind === kind);
const proven = (machine: Machine, level: DustHazard): FindProof =>
  proveFinding({ model: modelOf(machine), traits: traitsOf(machine), level });

afterEach(() => {
  vi.doUnmock('@/core/diagnose/within');
  vi.resetModules();
});

describe('a machine runs with its essential filter in (EN 60335-2-69, essential filter; common practice for which stage that is without a class)', () => {
  it('names the stage: the HEPA, else the main filter, else the last that filters', () => {
    const essential = (kind: MachineKind) => {
      const m = templateMachine(kind);
      return m.stages[essentialStage(m.stages)]?.kind;
    };
    expect([
      essential('hExtractor'),
      essential('hepaTank'),
      essential('mExtractor'),
      essential('fumeExtractor'),
    ]).toEqual(['mainFilter', 'hepa', 'mainFilter', 'hepa']);
  });

  it('never in controlled or contained dust, never on a classed machine, without it; in plain dust only behind another filter', () => {
    const m = templateMachine('mExtractor');
    const [main, bag] = [at(m, 'mainFilter'), at(m, 'bag')];
    const run = (out: readonly number[], machineClass: MachineClass | null, level: DustHazard) =>
      mayRun({ stages: m.stages, out, machineClass, level });
    expect(run([main], null, 'plain')).toBe(true);
    expect(run([main, bag], null, 'plain')).toBe(false);
    for (const c of ['L', 'M', 'H', 'HEPA'] as const) expect(run([main], c, 'plain')).toBe(false);
    for (const level of ['controlled', 'contained'] as const) expect(run([main], null, level)).toBe(false);
    expect(run([bag], 'H', 'contained')).toBe(true);
    expect(
      mayRun({ stages: withoutStage(m, 'mainFilter').stages, out: [], machineClass: 'H', level: 'contained' }),
    ).toBe(false);
  });
});

describe('no order of finding runs a machine unfiltered', () => {
  it('on every kind, class and level, whole or with a filter missing: best next and all schools', () => {
    let looked = 0;
    for (const kind of KINDS) {
      for (const machineClass of CLASSES) {
        const whole = templateMachine(kind, { machineClass });
        for (const machine of [whole, withoutStage(whole, 'mainFilter'), withoutStage(whole, 'hepa')]) {
          for (const level of DUST_HAZARDS) {
            const proof = proven(machine, level);
            looked += proof.looked;
            expect(proof.violations, `${kind} ${machineClass} ${level}`).toEqual([]);
          }
        }
      }
    }
    expect(looked).toBeGreaterThan(10_000);
  });

  it('the prover sees it where the rule is taken away: the bag, then the main filter, out and run', async () => {
    vi.resetModules();
    vi.doMock('@/core/diagnose/within', async (original) => ({
      ...(await original<object>()),
      notOffered: () => null,
    }));
    const { proveFinding: unguarded } = await import('@/core/diagnose/prove-find');
    const machine = templateMachine('hExtractor', { machineClass: 'H' });
    const { violations } = unguarded({ model: modelOf(machine), traits: traitsOf(machine), level: 'contained' });
    expect(violations.some((v) => v.out.includes(at(machine, 'mainFilter')))).toBe(true);
  });

  it('an order that takes out is offered with plain dust only; the same question stays open to a gauge, a new part, a look', () => {
    for (const kind of KINDS) {
      const machine = templateMachine(kind);
      const traits = traitsOf(machine);
      for (const level of DUST_HAZARDS) {
        const within = { stages: machine.stages, traits, level, out: [] };
        const offered = operationsOf(modelOf(machine), traits).filter((op) => notOffered(op, within) === null);
        if (level !== 'plain')
          expect(
            offered.some((op) => op.kind === 'takeOut' || op.kind === 'lampCoverOff'),
            `${kind} ${level}`,
          ).toBe(false);
        if (level === 'contained') expect(offered.some((op) => op.kind === 'smell')).toBe(false);
        expect(offered.length).toBeGreaterThan(3);
        // Whatever may be opened while it stands still may still be looked at.
        expect(
          offered.some((op) => ['stageDp', 'swap', 'lookBag', 'cleanSide', 'lookHose', 'lookNozzle'].includes(op.kind)),
        ).toBe(true);
        for (const school of SCHOOLS.filter((s) => s !== 'best'))
          if (level !== 'plain')
            expect(
              orderOf(school, { model: modelOf(machine), level }).some(
                (op) => op.kind === 'takeOut' && notOffered(op, within) === null,
              ),
            ).toBe(false);
      }
    }
  });
});
