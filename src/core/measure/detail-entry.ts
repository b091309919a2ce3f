import { equationHolds } from './orifice';
import { at, fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { parseQuantity, type QuantityKind } from '../units';
import type { GaugeZone, HandWord, LightState, MethodDetail } from './detail';
import type { Method } from './methods';
import type { Typed } from './typed';

/** A method's detail as typed or chosen; null is "not chosen yet". */
export type DetailEntry =
  | { readonly kind: 'none' }
  | {
      readonly kind: 'round';
      readonly diameter: Typed;
      readonly pointsPerDiameter: 6 | 10;
      readonly diameters: 1 | 2 | 3;
    }
  | {
      readonly kind: 'rectangular';
      readonly width: Typed;
      readonly height: Typed;
      readonly linesAcross: 5 | 6 | 7;
      readonly linesUp: 5 | 6 | 7;
    }
  | {
      readonly kind: 'plate';
      readonly orifice: Typed;
      readonly coefficient: number | null;
      readonly pipe: Typed | null;
    }
  | { readonly kind: 'curve'; readonly orifices: readonly Typed[]; readonly coefficient: number }
  | { readonly kind: 'stage'; readonly stageId: number | null }
  | { readonly kind: 'mass'; readonly stageId: number | null; readonly newMass: Typed }
  | {
      readonly kind: 'particles';
      readonly sizeUm: number;
      readonly flow: Typed;
      readonly exhaustTime: Typed;
      readonly roomTime: Typed;
    }
  | { readonly kind: 'zone'; readonly stageId: number | null; readonly zone: GaugeZone | null }
  | { readonly kind: 'hand'; readonly word: HandWord | null }
  | { readonly kind: 'light'; readonly name: string; readonly light: LightState | null; readonly after: Typed };

/** Which kinds of detail belong to a method. */
export const DETAILS_OF: Record<Method, readonly DetailEntry['kind'][]> = {
  flowMeter: ['none'],
  anemometer: ['none'],
  anemometerTraverse: ['round', 'rectangular'],
  pitot: ['none'],
  pitotTraverse: ['round', 'rectangular'],
  orifice: ['plate'],
  sealedSuction: ['none'],
  suctionCurve: ['curve'],
  stageDp: ['stage'],
  filterMass: ['mass'],
  lineVoltage: ['none'],
  current: ['none'],
  supplyPressure: ['none'],
  brushSpeed: ['none'],
  particles: ['particles'],
  gaugeZone: ['zone'],
  hand: ['hand'],
  indicator: ['light'],
};

interface Wanted {
  readonly kind: QuantityKind;
  readonly path: string;
  readonly low: number;
  readonly high: number;
}

const MOST_ORIFICES = 20;
const duct = (path: string): Wanted => ({ kind: 'length', path, low: 0.005, high: 3 });
const hole = (path: string): Wanted => ({ kind: 'length', path, low: 0.001, high: 1 });

const quantity = (typed: Typed, { kind, path, low, high }: Wanted): Result<number> => {
  const parsed = at(path, parseQuantity(typed.typed, kind, typed.unit));
  if (!parsed.ok) return parsed;
  const { valueSi } = parsed.value;
  return valueSi >= low && valueSi <= high
    ? ok(valueSi)
    : fail(failure('quantity.out-of-range', path, { kind, value: valueSi, low, high }));
};

const all = <T extends Record<string, Result<number>>>(results: T): Result<{ readonly [K in keyof T]: number }> => {
  const failures: Failure[] = Object.values(results).flatMap((r) => (r.ok ? [] : [...r.failures]));
  if (failures.length > 0) return fail(...failures);
  const values = Object.entries(results).map(([key, r]) => [key, r.ok ? r.value : Number.NaN]);
  return ok(Object.fromEntries(values) as { readonly [K in keyof T]: number });
};

const coefficient = (value: number): Result<number> =>
  value >= 0.5 && value <= 1
    ? ok(value)
    : fail(failure('profile.range', 'detail.coefficient', { factor: value, low: 0.5, high: 1 }));

const parsePlate = (entry: Extract<DetailEntry, { kind: 'plate' }>): Result<MethodDetail> => {
  const pipe = entry.pipe;
  const parts = all({
    orificeM: quantity(entry.orifice, hole('detail.orifice')),
    coefficient: entry.coefficient === null ? ok(Number.NaN) : coefficient(entry.coefficient),
    pipeM: pipe ? quantity(pipe, duct('detail.pipe')) : ok(0),
  });
  if (!parts.ok) return parts;
  const { orificeM, pipeM } = parts.value;
  if (pipe && !(orificeM < pipeM)) return fail(failure('orifice.too-large', 'detail.orifice'));
  const plate = { orificeM, coefficient: entry.coefficient, pipeM: pipe ? pipeM : null };
  if (plate.coefficient === null && !(pipe && equationHolds({ orificeM, pipeM })))
    return fail(failure('orifice.coefficient', 'detail.coefficient'));
  return ok({ kind: 'plate', plate });
};

const parseCurve = (entry: Extract<DetailEntry, { kind: 'curve' }>): Result<MethodDetail> => {
  const orifices = entry.orifices.slice(0, MOST_ORIFICES).map((o, i) => {
    const path = `detail.orifices.${i}`;
    const sealed = /^\s*0+([.,]0*)?\s*[a-z"]*\s*$/i.test(o.typed);
    return sealed ? ok(0) : quantity(o, hole(path));
  });
  const failures = orifices.flatMap((o) => (o.ok ? [] : o.failures));
  const c = coefficient(entry.coefficient);
  if (failures.length > 0 || !c.ok) return fail(...failures, ...(c.ok ? [] : c.failures));
  return ok({ kind: 'curve', orificesM: orifices.map((o) => (o.ok ? o.value : 0)), coefficient: c.value });
};

const parseParticles = (entry: Extract<DetailEntry, { kind: 'particles' }>): Result<MethodDetail> => {
  const seconds = (path: string): Wanted => ({ kind: 'duration', path, low: 1, high: 86_400 });
  const parts = all({
    flowM3s: quantity(entry.flow, { kind: 'flow', path: 'detail.flow', low: 1e-7, high: 0.01 }),
    exhaustS: quantity(entry.exhaustTime, seconds('detail.exhaustTime')),
    roomS: quantity(entry.roomTime, seconds('detail.roomTime')),
  });
  return parts.ok ? ok({ kind: 'particles', sizeUm: entry.sizeUm, ...parts.value }) : parts;
};

/** Reads a method's detail into SI, or says what is missing, beside its field. Lengths 1 mm to 3 m, times to a day. Source: the ranges are Moorwind's own. */
export const parseDetail = (entry: DetailEntry): Result<MethodDetail> => {
  switch (entry.kind) {
    case 'none':
      return ok({ kind: 'none' });
    case 'round': {
      const d = quantity(entry.diameter, duct('detail.diameter'));
      const { pointsPerDiameter, diameters } = entry;
      return d.ok
        ? ok({ kind: 'traverse', plan: { shape: 'round', diameterM: d.value, pointsPerDiameter, diameters } })
        : d;
    }
    case 'rectangular': {
      const sides = all({
        widthM: quantity(entry.width, duct('detail.width')),
        heightM: quantity(entry.height, duct('detail.height')),
      });
      const { linesAcross, linesUp } = entry;
      return sides.ok
        ? ok({ kind: 'traverse', plan: { shape: 'rectangular', ...sides.value, linesAcross, linesUp } })
        : sides;
    }
    case 'plate':
      return parsePlate(entry);
    case 'curve':
      return parseCurve(entry);
    case 'stage':
      return entry.stageId === null
        ? fail(failure('detail.stage', 'detail.stageId'))
        : ok({ kind: 'stage', stageId: entry.stageId });
    case 'mass': {
      if (entry.stageId === null) return fail(failure('detail.stage', 'detail.stageId'));
      const mass = quantity(entry.newMass, { kind: 'mass', path: 'detail.newMass', low: 1e-4, high: 100 });
      return mass.ok ? ok({ kind: 'mass', stageId: entry.stageId, newMassKg: mass.value }) : mass;
    }
    case 'particles':
      return parseParticles(entry);
    case 'zone':
      if (entry.stageId === null) return fail(failure('detail.stage', 'detail.stageId'));
      return entry.zone === null
        ? fail(failure('detail.word', 'detail.zone'))
        : ok({ kind: 'zone', stageId: entry.stageId, zone: entry.zone });
    case 'hand':
      return entry.word === null ? fail(failure('detail.word', 'detail.word')) : ok({ kind: 'hand', word: entry.word });
    case 'light': {
      if (entry.light === null) return fail(failure('detail.word', 'detail.light'));
      const after = quantity(entry.after, { kind: 'duration', path: 'detail.after', low: 0, high: 3600 });
      return after.ok ? ok({ kind: 'light', name: entry.name, light: entry.light, afterS: after.value }) : after;
    }
  }
};
