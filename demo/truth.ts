import { orificeFlowM3s } from '@/core/measure/orifice';
import { bracketedNewton } from '@/core/numeric/root';
import { type Place } from '@/core/measure/place';
import { gapOfPlace } from '@/core/path/path-places';
import type { MachineModel, PathParameters } from '@/core/path/machine-path';
import { REFERENCE_AIR } from '@/core/path/model/air';
import { NOMINAL_DRIVE } from '@/core/path/model/fan';
import { stageTemplate } from '@/core/machine/stage-templates';
import type { StageSpec } from '@/core/path/stage-spec';
import { type Entry, pressureProfile, type PressureProfile } from '@/core/path/pressure-profile';
import { toSi } from '@/core/units';
import type { Random } from './random';
import type { MachineSpec, StageSpec as DemoStage, Truth } from './scenario';

// What each made-up machine really is: the application never sees this, only the readings taken from it.

/** The stage as entered on the record: its kind's defaults, with what the yard knows better. */
export const specOf = (stage: DemoStage, spec: MachineSpec): StageSpec => {
  const base = stageTemplate(stage.kind, spec.kind);
  return stage.knows ? stage.knows(base) : base;
};

const PLATE_C = 0.61;
const ROOM_PA = 101_325;

const modelOf = (spec: MachineSpec): MachineModel => ({
  stages: spec.stages.map((s, i) => ({ id: i, kind: s.kind, name: s.name, missing: false, spec: specOf(s, spec) })),
  hoseBoreM: spec.hoseBoreM,
  hoseLengthM: spec.hoseLengthM,
});

export interface TrueMachine {
  readonly sealedPa: (place: Place) => number;
  readonly flowM3s: (place: Place) => number;
  /** Suction behind a hole at a place. */
  readonly behindHolePa: (place: Place, orificeM: number) => number;
  readonly stageDropPa: (position: number, place: Place) => number;
  readonly parameters: PathParameters;
}

/** Odd stages a little better, even ones a little worse than the record says: no machine is its template. */
const STRAY = 0.03;

const solved = (spec: MachineSpec, parameters: PathParameters, stray: Readonly<Record<number, number>>) => {
  const model = modelOf(spec);
  const kinds = spec.stages.map((s) => s.kind);
  const state = {
    stages: Object.fromEntries(
      Object.entries(stray).map(([i, f]) => [i, { loadPaSM3: 0, blockFactor: f, removed: false }]),
    ),
    leaksM2: {},
    hose: null,
    drive: NOMINAL_DRIVE,
    air: REFERENCE_AIR,
  };
  const run = (entry: Entry): PressureProfile => {
    const result = pressureProfile({ model, parameters, state, entry });
    if (!result.ok)
      throw new Error(
        `the true ${spec.tag} cannot be solved: ${result.failures.map((f) => `${f.code} ${f.path}`).join()}`,
      );
    return result.value;
  };
  const node = (place: Place) => gapOfPlace(kinds, place);
  const open = (place: Place): Entry =>
    place === 'toolEnd' || place === 'outlet'
      ? { at: 'use' }
      : { at: 'node', opening: { node: node(place), state: 'open' } };
  const drawn = (place: Place, flowM3s: number) =>
    -(run({ at: 'node', opening: { node: node(place), state: 'drawn', flowM3s } }).nodesPa[node(place)] ?? 0);
  return { run, open, drawn };
};

interface Fitting {
  readonly read: (p: PathParameters) => number;
  readonly wanted: number;
  readonly by: 'pathScale' | 'p0Pa';
}

/** The scale on the path (or the fan's lift, where only suction is read) that makes the clean reading the yard's own. */
const fitTo = (truth: Truth, { read, wanted, by }: Fitting): PathParameters => {
  const base: PathParameters = {
    p0Pa: truth.p0Pa,
    qMaxM3s: truth.qMaxM3s,
    leakM2: truth.leakM2,
    pathScale: truth.pathScale ?? 1,
  };
  const at = (x: number): PathParameters => ({ ...base, [by]: base[by] * Math.exp(x) });
  const falls = by === 'pathScale' ? 1 : -1;
  const found = bracketedNewton({
    low: by === 'pathScale' ? -3 : -1,
    high: by === 'pathScale' ? 3 : 1,
    start: 0,
    tolerance: wanted * 1e-6,
    evaluate: (x, out) => {
      out.value = read(at(falls * x)) - wanted;
      out.slope = 0;
    },
  });
  return at(falls * found.root);
};

export const trueMachine = (spec: MachineSpec, truth: Truth, random: Random): TrueMachine => {
  const { rig } = spec;
  if (!rig) throw new Error(`${spec.tag} has no rig`);
  const stray = Object.fromEntries(spec.stages.map((_, i) => [i, 1 + STRAY * (2 * random.uniform() - 1)]));
  const sealed = rig.method === 'sealedSuction';
  const wanted = sealed
    ? toSi('pressure', rig.clean, rig.unit)
    : rig.method === 'flowMeter'
      ? toSi('flow', rig.clean, rig.unit)
      : (rig.profileFactor ?? 1) * rig.clean * ((Math.PI * (rig.boreM ?? 0) ** 2) / 4);
  const readOf = (p: PathParameters): number => {
    const s = solved(spec, p, stray);
    return sealed ? s.drawn(rig.place, 0) : s.run(s.open(rig.place)).flowPerToolM3s;
  };
  const parameters = fitTo(truth, { read: readOf, wanted, by: sealed ? 'p0Pa' : 'pathScale' });
  const s = solved(spec, parameters, stray);
  return {
    parameters,
    sealedPa: (place) => s.drawn(place, 0),
    flowM3s: (place) => s.run(s.open(place)).flowPerToolM3s,
    stageDropPa: (position, place) => s.run(s.open(place)).steps[position]?.dropPa ?? 0,
    behindHolePa: (place, orificeM) => {
      const through = (pa: number) =>
        orificeFlowM3s({
          orificeM,
          coefficient: PLATE_C,
          differentialPa: pa,
          upstreamPa: ROOM_PA,
          densityKgM3: REFERENCE_AIR.densityKgM3,
          pipeM: null,
        });
      const found = bracketedNewton({
        low: 1,
        high: Math.min(ROOM_PA / 4.2, parameters.p0Pa),
        start: 1000,
        tolerance: 0.01,
        evaluate: (pa, out) => {
          // A hole that takes more than the fan can move reads nothing: count it as below every suction.
          const most = s.run(s.open(place)).flowPerToolM3s;
          out.value = through(pa) >= most ? -pa : s.drawn(place, through(pa)) - pa;
          out.slope = 0;
        },
      });
      return found.root;
    },
  };
};
