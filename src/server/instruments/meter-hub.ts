import { EventEmitter } from 'node:events';
import type { MeterLine } from '@/contracts/meter-line';

/** Passes lines posted by a bridge to all listeners of that instrument. Stores nothing. */
class MeterHub {
  readonly #events = new EventEmitter().setMaxListeners(100);
  readonly #lastPost = new Map<number, number>();

  post(instrumentId: number, line: MeterLine, atMs: number): void {
    this.#lastPost.set(instrumentId, atMs);
    this.#events.emit(String(instrumentId), line);
  }

  /** A bridge that sent a line recently silences the stand-in. */
  bridged(instrumentId: number, nowMs: number, withinMs = 5000): boolean {
    return nowMs - (this.#lastPost.get(instrumentId) ?? Number.NEGATIVE_INFINITY) < withinMs;
  }

  listen(instrumentId: number, onLine: (line: MeterLine) => void): () => void {
    const name = String(instrumentId);
    this.#events.on(name, onLine);
    return () => this.#events.off(name, onLine);
  }
}

export const meterHub = new MeterHub();
