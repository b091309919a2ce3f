import { parseMeterLine } from '@/contracts/meter-line';
import { findUnit, type QuantityKind, toSi } from '@/core/units';
import type { MeterBuffer } from './meter-buffer';

/** Samples kept: a minute of ten a second. */
const KEPT = 600;
/** More lines in a second are dropped, and the screen says so. */
const MOST_PER_SECOND = 40;
/** Takes one line in: a sample of the wanted quantity, a dropped reading, garbage, or one too many. */
export const bufferLine = (
  buffer: MeterBuffer,
  { data, atMs, wanted }: { data: string; atMs: number; wanted: QuantityKind },
): MeterBuffer => {
  const recent = buffer.samples.filter((s) => atMs - s.atMs < 1000).length;
  if (recent >= MOST_PER_SECOND) return { ...buffer, lastAtMs: atMs, flooded: true };
  const line = parseMeterLine(data);
  const unit = line && line.quantity === wanted ? findUnit(wanted, line.unit) : undefined;
  if (!line || !unit) return { ...buffer, lastAtMs: atMs, garbage: buffer.garbage + 1 };
  if (line.value === null) return { ...buffer, lastAtMs: atMs, dropped: buffer.dropped + 1 };
  const sample = { atMs, valueSi: toSi(wanted, line.value, unit.symbol) };
  return { ...buffer, lastAtMs: atMs, samples: [...buffer.samples, sample].slice(-KEPT) };
};
