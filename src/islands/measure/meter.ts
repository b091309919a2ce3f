import { parseMeterLine } from '@/contracts/meter-line';
import type { Sample } from '@/core/measure/settling';
import { findUnit, type QuantityKind, toSi } from '@/core/units';

/** What is kept of a streaming meter, bounded whatever it sends. */
export interface MeterBuffer {
  readonly samples: readonly Sample[];
  readonly lastAtMs: number | null;
  readonly dropped: number;
  readonly garbage: number;
  readonly flooded: boolean;
}

export const EMPTY_BUFFER: MeterBuffer = { samples: [], lastAtMs: null, dropped: 0, garbage: 0, flooded: false };

/** Samples kept: a minute of ten a second. */
const KEPT = 600;
/** More lines in a second than this are let go, and that is said. */
const MOST_PER_SECOND = 40;
/** Without a line for so long, the stream is taken to have stopped. */
export const STOPPED_AFTER_MS = 3000;

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
