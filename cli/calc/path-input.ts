import { MACHINE_KINDS } from '@/core/machine/kinds';
import type { AirPathInput, ElementInput, MachineInput } from '@/contracts/calc/air-path';
import type { QuantityInput } from '@/contracts/calc/quantity';
import { moistAirDensity } from '@/core/air/density';
import { airViscosityPaS } from '@/core/air/viscosity';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { MachineModel, PathParameters } from '@/core/path/machine-path';
import { type PathAir, REFERENCE_AIR } from '@/core/path/model/air';
import type { Chain, Element, LineFriction } from '@/core/path/model/element';
import { type FanCurve, fanOfPoints } from '@/core/path/model/fan';
import { perforatedAreaM2 } from '@/core/path/model/leak';
import { fitSuctionCurve } from '@/core/measure/suction-curve';
import { stageTemplate } from '@/core/machine/stage-templates';
import { templateParameters } from '@/core/path/pressure-profile';
import type { QuantityKind } from '@/core/units';
import { collect, readQuantity } from './quantities';

type Wanted = readonly (readonly [name: string, input: QuantityInput, kind: QuantityKind])[];

/** Reads several quantities by name; lists every one that cannot be read. */
const quantities = (wanted: Wanted): Result<Readonly<Record<string, number>>> => {
  const read = collect(wanted.map(([name, input, kind]) => readQuantity(input, kind, name)));
  return read.ok ? ok(Object.fromEntries(wanted.map(([name], i) => [name, read.value[i] ?? 0]))) : read;
};

const one = <T>(wanted: Wanted, make: (q: (name: string) => number) => T): Result<T> => {
  const read = quantities(wanted);
  return read.ok ? ok(make((name) => read.value[name] ?? Number.NaN)) : read;
};

export const frictionOf = (
  input: { readonly factor: number } | { readonly roughness: QuantityInput },
): Result<LineFriction> =>
  'factor' in input
    ? ok({ by: 'factor', factor: input.factor })
    : one([['roughness', input.roughness, 'length']], (q) => ({ by: 'roughness', roughnessM: q('roughness') }));

type FanInput = Extract<ElementInput, { kind: 'fan' }>['curve'];

const pointsOf = (c: Extract<FanInput, { kind: 'points' }>): Result<FanCurve> => {
  const points = collect(
    c.points.map((p, i) =>
      at(
        `points.${i}`,
        one(
          [
            ['flow', p.flow, 'flow'],
            ['suction', p.suction, 'pressure'],
          ],
          (q) => ({ flowM3s: q('flow'), suctionPa: q('suction') }),
        ),
      ),
    ),
  );
  if (!points.ok) return points;
  const curve = at('points', fitSuctionCurve(points.value));
  return curve.ok ? ok(fanOfPoints(curve.value)) : curve;
};

const figuresOf = (c: Exclude<FanInput, { kind: 'points' }>): Result<FanCurve> =>
  one(
    [
      ['sealed', c.sealed, 'pressure'],
      ['freeFlow', c.freeFlow, 'flow'],
      ['nominalSupply', c.nominalSupply, 'pressure'],
    ],
    (q): FanCurve => {
      const base = { p0Pa: q('sealed'), qMaxM3s: q('freeFlow') };
      if (c.kind === 'universal') return { kind: 'universal', ...base, a: c.a };
      return c.kind === 'centrifugal'
        ? { kind: 'centrifugal', ...base }
        : { kind: 'pneumatic', ...base, nominalSupplyPa: q('nominalSupply') };
    },
  );

const fanOf = (c: FanInput): Result<FanCurve> => (c.kind === 'points' ? pointsOf(c) : figuresOf(c));

const lineOf = (e: Extract<ElementInput, { kind: 'line' }>): Result<Element> => {
  const friction = at('friction', frictionOf(e.friction));
  if (!friction.ok) return friction;
  return one(
    [
      ['bore', e.bore, 'length'],
      ['length', e.length, 'length'],
    ],
    (q) => ({
      kind: 'line',
      boreM: q('bore'),
      lengthM: q('length'),
      friction: friction.value,
      entryK: e.entryK,
      exitK: e.exitK,
    }),
  );
};

const elementOf = (e: ElementInput): Result<Element> => {
  switch (e.kind) {
    case 'medium':
      return one(
        [
          ['area', e.area, 'area'],
          ['dust', e.dust, 'mass'],
        ],
        (q) => ({ kind: 'medium', k1PaSM: e.k1, k2PaSMKg: e.k2, areaM2: q('area'), dustKg: q('dust') }),
      );
    case 'fitting':
      return one([['bore', e.bore, 'length']], (q) => ({ kind: 'fitting', lossK: e.lossK, boreM: q('bore') }));
    case 'nozzle':
      return one([['area', e.area, 'area']], (q) => ({
        kind: 'nozzle',
        areaM2: q('area'),
        coefficient: e.coefficient,
      }));
    case 'line':
      return lineOf(e);
    case 'cyclone':
      return one([['inletArea', e.inletArea, 'area']], (q) => ({
        kind: 'cyclone',
        lossK: e.lossK,
        inletAreaM2: q('inletArea'),
      }));
    case 'resistance':
      return ok({ kind: 'resistance', r1PaSM3: e.r1, r2PaS2M6: e.r2 });
    case 'check':
      return one([['crack', e.crack, 'pressure']], (q) => ({ kind: 'check', crackPa: q('crack'), r2PaS2M6: e.r2 }));
    case 'fan': {
      const curve = at('curve', fanOf(e.curve));
      return curve.ok ? ok({ kind: 'fan', curve: curve.value }) : curve;
    }
    case 'parallel': {
      const ways = collect(
        e.ways.map((way, i) => at(`ways.${i}`, collect(way.map((x, j) => at(String(j), elementOf(x)))))),
      );
      return ways.ok ? ok({ kind: 'parallel', ways: ways.value }) : ways;
    }
  }
};

const leakOf = (l: AirPathInput['leaks'][number], path: string): Result<number> => {
  if ('area' in l) return readQuantity(l.area, 'area', `${path}.area`);
  const hole = readQuantity(l.hole, 'length', `${path}.hole`);
  if (!hole.ok) return hole;
  return hole.value >= 0
    ? ok(perforatedAreaM2({ holes: l.holes, holeM: hole.value }))
    : fail(failure('path.leak', `${path}.hole`, { value: hole.value }));
};

/** A chain of the input in SI. Several leaks at one node add up. */
export const chainOf = ({ elements, leaks }: Pick<AirPathInput, 'elements' | 'leaks'>): Result<Chain> => {
  const read = collect(elements.map((e, i) => at(`elements.${i}`, elementOf(e))));
  const areas = collect(leaks.map((l, i) => leakOf(l, `leaks.${i}`)));
  if (!read.ok || !areas.ok) return fail(...[read, areas].flatMap((r) => (r.ok ? [] : r.failures)));
  const stray = leaks.findIndex((l) => l.node > elements.length);
  if (stray >= 0)
    return fail({
      code: 'path.node',
      path: `leaks.${stray}.node`,
      facts: { node: leaks[stray]?.node ?? 0, most: elements.length },
    });
  const leaksM2 = Array.from({ length: elements.length + 1 }, (_, node) =>
    leaks.reduce((sum, l, i) => (l.node === node ? sum + (areas.value[i] ?? 0) : sum), 0),
  );
  return ok({ elements: read.value, leaksM2 });
};

export const airOf = (input: AirPathInput['air']): Result<PathAir> => {
  if (!input) return ok(REFERENCE_AIR);
  const read = one(
    [
      ['temperature', input.temperature, 'temperature'],
      ['relativeHumidity', input.relativeHumidity, 'relativeHumidity'],
      ['pressure', input.pressure, 'pressure'],
    ],
    (q) => ({
      temperatureK: q('temperature'),
      relativeHumidity: q('relativeHumidity'),
      pressurePa: q('pressure'),
    }),
  );
  if (!read.ok) return at('air', read);
  const density = at('air', moistAirDensity(read.value));
  return density.ok
    ? ok({ densityKgM3: density.value, viscosityPaS: airViscosityPaS(read.value.temperatureK) })
    : density;
};

export interface MachineRead {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
}

/** A machine of the input: the stages of its kind, with its own facts laid over them. */
export const machineOf = (m: MachineInput): Result<MachineRead> => {
  const wanted: Wanted = [
    ['hoseBore', m.hoseBore, 'length'],
    ['hoseLength', m.hoseLength, 'length'],
    ['leak', m.leak, 'area'],
    ...(m.sealed === undefined ? [] : [['sealed', m.sealed, 'pressure'] as const]),
    ...(m.freeFlow === undefined ? [] : [['freeFlow', m.freeFlow, 'flow'] as const]),
  ];
  return at(
    'machine',
    one(wanted, (q) => {
      const model: MachineModel = {
        stages: MACHINE_KINDS[m.kind].path.map((kind, i) => ({
          id: i + 1,
          kind,
          name: kind,
          missing: false,
          spec: stageTemplate(kind, m.kind),
        })),
        hoseBoreM: q('hoseBore'),
        hoseLengthM: q('hoseLength'),
      };
      const base = templateParameters(model, q('leak'));
      return {
        model,
        parameters: {
          ...base,
          pathScale: m.pathScale,
          p0Pa: m.sealed === undefined ? base.p0Pa : q('sealed'),
          qMaxM3s: m.freeFlow === undefined ? base.qMaxM3s : q('freeFlow'),
        },
      };
    }),
  );
};
