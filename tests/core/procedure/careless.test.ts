import { describe, expect, it } from 'vitest';
import { prove } from '@/core/procedure/prove/prove';
import { CAREFUL, CARELESS } from '../../bench/safety/careless';
import { procedureOf } from '../../bench/safety/written';
import { machineOfKind } from '../../support/jobs';

// Orders written by hand against the prover. Source: handbook of the trade, sections 11, 18, 20, 21; common practice, no
// published source.

describe('the prover against people', () => {
  it('there are forty and more ways to do it wrong, each with a reason of its own step', () => {
    expect(CARELESS.length).toBeGreaterThanOrEqual(40);
    expect(new Set(CARELESS.map((c) => c.what)).size).toBe(CARELESS.length);
    expect(new Set(CARELESS.map((c) => c.reason)).size).toBeGreaterThan(25);
  });

  it.each(CARELESS.map((c) => [c.what, c] as const))('%s', (_what, c) => {
    const machine = { ...machineOfKind(c.kind), hazard: c.level };
    const procedure = procedureOf(c, machine);
    const [key, stage] = c.at.split(' @');
    const found = prove(procedure, machine, c.level).filter((v) => v.kind === c.reason);
    const where = found.map((v) => {
      const step = v.at === null ? undefined : procedure.steps[v.at];
      const of = step?.stage === null || step === undefined ? undefined : machine.stages[step.stage]?.kind;
      return step ? { key: step.key, of } : { key: 'end', of };
    });
    expect(where.map((w) => w.key)).toContain(key);
    if (stage) expect(where).toContainEqual({ key, of: stage });
  });

  it.each(CAREFUL.map((c) => [c.what, c] as const))('passes %s', (_what, c) => {
    const machine = { ...machineOfKind(c.kind), hazard: c.level };
    expect(prove(procedureOf(c, machine), machine, c.level)).toEqual([]);
  });
});
