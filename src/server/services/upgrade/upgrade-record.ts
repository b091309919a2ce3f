import { dayAt } from '@/core/calendar/calendar-date';
import { inForce } from '@/core/record/records';
import type { Proof } from '@/core/upgrade/prove';
import { bookedOf, phaseOf, type UpgradePhase, type UpgradeRecord } from '@/core/upgrade/record';
import { loadUpgrades } from '../../repositories/upgrades';
import { loadBench } from '../measuring/bench';
import { provenOf } from './upgrade-proof';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

export interface UpgradeLine {
  readonly upgrade: UpgradeRecord;
  readonly tag: string;
  readonly name: string;
  readonly phase: UpgradePhase;
  readonly proof: Proof | null;
  readonly stageName: (id: number) => string;
  /** Price of the parts taken for the machine since it was made; null where it is not. */
  readonly spentSince: number | null;
}

/** Every upgrade of the yard, the newest first, with its measurements and the use of its machine since. */
export const upgradeRecord = async (
  context: Context,
): Promise<{ readonly yard: Yard; readonly lines: readonly UpgradeLine[] }> => {
  const yard = await loadYard(context);
  const lines: UpgradeLine[] = [];
  for (const upgrade of await loadUpgrades(context.db)) {
    const machine = yard.machines.find((s) => s.machine.id === upgrade.machineId)?.machine;
    const { bench } = machine ? await loadBench(context, machine.tag) : { bench: null };
    if (!machine || !bench) continue;
    const booked = bookedOf(upgrade);
    const since = booked && dayAt(booked.at, yard.site.timeZone);
    const prices = new Map(bench.parts.map((p) => [p.id, p.price]));
    lines.push({
      upgrade,
      tag: machine.tag,
      name: machine.name,
      phase: phaseOf(upgrade),
      proof: provenOf(bench, upgrade)?.proof ?? null,
      stageName: (id) => [...machine.stages, ...machine.retired].find((s) => s.id === id)?.name ?? 'a stage',
      spentSince:
        since === null
          ? null
          : inForce(bench.changes)
              .filter((c) => c.performedOn >= since)
              .reduce((sum, c) => sum + c.quantity * (prices.get(c.partId ?? 0) ?? 0), 0),
    });
  }
  return { yard, lines: lines.reverse() };
};
