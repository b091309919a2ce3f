import { type AirState } from '../air/density';
import type { Place } from './place';
import { type Accuracy } from './accuracy';
import type { MethodDetail } from './detail';
import { type Method, type Precondition } from './methods';

/** One test as read, in SI. */
export interface TestReadings {
  readonly method: Method;
  readonly place: Place;
  /** Readings that count (none struck out), in the SI unit of what the method reads. */
  readonly readingsSi: readonly number[];
  /** Which point of a traverse or curve, or which count, each reading is; in step with `readingsSi`. */
  readonly slots: readonly number[];
  /** One step of the display, same unit. */
  readonly resolutionSi: number;
  /** Test pipe of a centre-point method; null for the others. */
  readonly boreM: number | null;
  readonly profileFactor: number | null;
  readonly detail: MethodDetail;
  readonly instrumentId: number | null;
  readonly accuracy: Accuracy | null;
  readonly air: AirState;
  /** Inside diameter of the hose that was fitted; null when there is none. */
  readonly hoseBoreM: number | null;
  /** Goes up by one each time the rig was moved or mounted again: series of different rigs are never mixed. */
  readonly rigSeries: number;
  /** Line voltage during the test, V; null when it was not read. */
  readonly volts: number | null;
  /** A reading was the meter's maximum hold: biased high, without a spread. */
  readonly maxHold: boolean;
  readonly failedPreconditions: readonly Precondition[];
}
