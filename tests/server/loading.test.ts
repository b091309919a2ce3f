import { describe, expect, it } from 'vitest';
import { findMachine, loadMachines, stageIdsInUse } from '@/server/repositories/machines';
import { demoContext } from '../support/database';

describe('a machine loaded by itself', () => {
  it('is the machine that is loaded with the whole yard, to the last field', async () => {
    const { db } = await demoContext();
    const yard = await loadMachines(db);
    expect(yard.length).toBeGreaterThan(10);
    for (const machine of yard) expect(await findMachine(db, machine.tag.toLowerCase())).toEqual(machine);
    expect(yard.some((m) => m.hours.length > 0 && m.stages.some((s) => s.looks.length > 0))).toBe(true);
    expect(yard.some((m) => m.dust.collected.length > 1)).toBe(true);
    expect(yard.flatMap((m) => m.stages).every((s) => s.rules.every((r) => r.stageId === s.id))).toBe(true);
  });

  it('is none for a tag that is not there, and knows every stage in use', async () => {
    const { db } = await demoContext();
    expect(await findMachine(db, 'CR-99')).toBeNull();
    const used = (await loadMachines(db)).flatMap((m) => m.stages.map((s) => s.id));
    expect([...(await stageIdsInUse(db))].sort()).toEqual([...used].sort());
  });
});
