import { fail, failure, type Result, ok } from '../failure/failure';
import { METHODS, type Method } from './methods';

interface Read {
  readonly method: Method;
  readonly valueSi: number;
  /** The value and unit as typed, for the failure. */
  readonly shown: { readonly number: number; readonly unit: string };
  /** Pa; bounds a suction. */
  readonly barometricPa: number;
}

/**
 * A reading with its sign settled: a manometer may show suction as a minus, flow and velocity have no other side. The one
 * place where it is decided, for the pad, the file and the command line. Source: common practice, no published source.
 * Returns `suction.impossible` above the barometer, `quantity.negative` or `pitot.negative-point` below 0.
 * Valid: any reading in SI.
 * @example signedReading({ method: 'sealedSuction', valueSi: -22900, ... }) // 22900
 */
export const signedReading = ({ method, valueSi, shown, barometricPa }: Read): Result<number> => {
  const { measurand } = METHODS[method];
  if (measurand === 'suction' || measurand === 'airPower') {
    const suction = Math.abs(valueSi);
    return suction < barometricPa
      ? ok(suction)
      : fail(failure('suction.impossible', '', { number: Math.abs(shown.number), unit: shown.unit, barometricPa }));
  }
  if (valueSi >= 0) return ok(valueSi);
  return fail(
    failure(method === 'pitot' || method === 'pitotTraverse' ? 'pitot.negative-point' : 'quantity.negative', '', {
      ...shown,
    }),
  );
};
