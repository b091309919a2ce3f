import { describe, expect, it } from 'vitest';
import { MACHINE_KIND_NAMES } from '@/core/machine/kinds';
import { PROCEDURE_IDS } from '@/core/procedure/step';
import { dustParts } from '@/core/machine/dust-parts';
import { checkProcedures } from '../../cli/check-procedures';

describe('every procedure there is', () => {
  const checked = checkProcedures();

  it('is assembled for every kind, stage, method, level and class, and none is unsafe', () => {
    expect(checked.length).toBeGreaterThan(30_000);
    expect(new Set(checked.map((c) => c.procedure.id))).toEqual(new Set(PROCEDURE_IDS));
    expect(new Set(checked.map((c) => c.machine.kind))).toEqual(new Set(MACHINE_KIND_NAMES));
    expect(checked.filter((c) => c.violations.length > 0).map((c) => c.of)).toEqual([]);
  });

  it('clears nothing that is still full: liner, cyclone bag, lower bag, bin, hose and walls come out or are cleaned', () => {
    // Handbook of the trade, section 20: what holds dust, by kind; common practice, no published source.
    const clearing = checked.filter((c) => c.procedure.id === 'decontamination' || c.procedure.id === 'service');
    expect(clearing.length).toBeGreaterThan(100);
    for (const { of, procedure, machine } of clearing) {
      const away = new Set(procedure.steps.flatMap((s) => (s.moves === 'disposeOld' ? [s.stage] : [])));
      const wiped = new Set(procedure.steps.flatMap((s) => (s.key === 'cleanWalls' ? [s.stage] : [])));
      expect(
        machine.stages.flatMap((s, i) =>
          ['hose', 'bag', 'cyclone', 'dropChamber', 'prefilter', 'mainFilter', 'canister', 'hepa', 'gas'].includes(
            s.kind,
          ) && !away.has(i)
            ? [s.kind]
            : [],
        ),
        of,
      ).toEqual([]);
      expect(
        machine.stages.flatMap((s, i) =>
          ['nozzle', 'shroud', 'hood', 'duct', 'inlet', 'ring'].includes(s.kind) && !wiped.has(i) ? [s.kind] : [],
        ),
        of,
      ).toEqual([]);
      expect(
        procedure.steps.map((s) => s.key),
        of,
      ).toContain('cleanVessel');
    }
  });

  it('counts the fan of a collector as dirty: it sits before the filter', () => {
    const collector = checked.find((c) => c.machine.kind === 'singleStageCollector')?.machine;
    const fan = collector?.stages.findIndex((s) => s.kind === 'fan');
    expect(collector && dustParts(collector)).toContainEqual({ at: 'stage', stage: fan, place: 'inside' });
    const vacuum = checked.find((c) => c.machine.kind === 'hExtractor')?.machine;
    const clean = vacuum?.stages.findIndex((s) => s.kind === 'fan');
    expect(vacuum && dustParts(vacuum).some((p) => p.at === 'stage' && p.stage === clean)).toBe(false);
  });
});
