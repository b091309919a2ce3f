/** Every way an expected failure can be named. The sentences live in `messages/`. */
export type FailureCode =
  | 'quantity.empty'
  | 'quantity.too-long'
  | 'quantity.not-a-number'
  | 'quantity.ambiguous-comma'
  | 'quantity.unknown-unit'
  | 'quantity.wrong-unit'
  | 'quantity.pounds'
  | 'quantity.unit-missing'
  | 'quantity.out-of-range'
  | 'quantity.negative'
  | 'suction.impossible'
  | 'readings.none'
  | 'readings.too-many'
  | 'readings.all-struck'
  | 'bore.missing'
  | 'profile.range'
  | 'traverse.plan'
  | 'traverse.incomplete'
  | 'traverse.repeated-point'
  | 'pitot.negative-point'
  | 'orifice.missing'
  | 'orifice.too-large'
  | 'orifice.pressure'
  | 'curve.too-few'
  | 'curve.no-fit'
  | 'particles.counting'
  | 'particles.whole'
  | 'particles.both'
  | 'detail.stage'
  | 'detail.word'
  | 'mass.new'
  | 'air.state'
  | 'air.sea-level-pressure'
  | 'path.empty'
  | 'path.no-fan'
  | 'path.two-fans'
  | 'path.area'
  | 'path.bore'
  | 'path.negative'
  | 'path.range'
  | 'path.way'
  | 'path.leak'
  | 'path.node'
  | 'path.fan'
  | 'path.fan-rises'
  | 'path.drive'
  | 'path.no-point'
  | 'path.outside-curve'
  | 'path.not-settled'
  | 'path.hepa-first'
  | 'path.gas-first'
  | 'path.paper-wet'
  | 'path.mouth-late'
  | 'path.exhaust-early'
  | 'path.wye-first'
  | 'path.too-long'
  | 'stage.name'
  | 'stage.used'
  | 'edit.stale'
  | 'edit.nothing'
  | 'case.refused'
  | 'procedure.school'
  | 'job.open'
  | 'job.unknown'
  | 'job.refused'
  | 'job.not-yet'
  | 'job.no-stock'
  | 'job.untested'
  | 'job.walk-it'
  | 'integrity.above'
  | 'integrity.no-count'
  | 'integrity.not-due'
  | 'photo.not-image'
  | 'photo.too-large'
  | 'photo.unknown'
  | 'plan.past'
  | 'usage.future'
  | 'away.backwards'
  | 'look.future'
  | 'order.unknown'
  | 'order.past'
  | 'rule.circular'
  | 'rule.range'
  | 'case.open'
  | 'case.unknown'
  | 'case.ended'
  | 'case.event-unknown'
  | 'case.not-done'
  | 'case.not-out'
  | 'case.trial'
  | 'case.no-part'
  | 'case.no-word'
  | 'case.change'
  | 'calibration.one-point'
  | 'calibration.no-flow'
  | 'calibration.contradictory'
  | 'load.no-flow'
  | 'load.less-than-clean'
  | 'train.empty'
  | 'train.rating'
  | 'train.bypass'
  | 'date.future'
  | 'date.invalid'
  | 'date.before-service'
  | 'machine.unknown'
  | 'machine.tag-taken'
  | 'stage.unknown'
  | 'stage.not-changeable'
  | 'part.unknown'
  | 'part.wrong-for-stage'
  | 'instrument.unknown'
  | 'instrument.wrong-quantity'
  | 'test.unknown'
  | 'test.wrong-machine'
  | 'change.unknown'
  | 'record.superseded'
  | 'count.range'
  | 'action.reused'
  | 'action.busy'
  | 'text.missing'
  | 'text.too-long'
  | 'field.invalid'
  | 'request.not-json'
  | 'request.malformed'
  | 'request.too-large'
  | 'request.method'
  | 'request.host'
  | 'page.unknown'
  | 'calc.unknown'
  | 'server.bug';

export type FactValue = string | number;

/** An expected failure as data: what went wrong, where, and the facts the sentence needs. */
export interface Failure {
  readonly code: FailureCode;
  /** Dotted path of the field, '' when it is about the whole request. */
  readonly path: string;
  readonly facts: Readonly<Record<string, FactValue>>;
}

export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly failures: readonly Failure[] };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

export const failure = (code: FailureCode, path = '', facts: Failure['facts'] = {}): Failure => ({ code, path, facts });

export const fail = (...failures: Failure[]): { readonly ok: false; readonly failures: readonly Failure[] } => ({
  ok: false,
  failures,
});

/** Puts a field's path in front of the failures of a part, so that the sentence lands beside the field. */
export const at = <T>(path: string, result: Result<T>): Result<T> =>
  result.ok
    ? result
    : { ok: false, failures: result.failures.map((f) => ({ ...f, path: f.path === '' ? path : `${path}.${f.path}` })) };
