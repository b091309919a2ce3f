import type { MachineModel, PathParameters, PathState, StageState } from '../path/machine-path';
import { CLEAN } from '../path/machine-path';
import { gapOfPlace } from '../path/path-places';
import { leakConductance } from '../path/model/leak';
import type { CaseSubject } from './expected';
import { faultSimulatorOf } from './signature';

/** One possible sound machine: the place of its small leak, and the dust since its baselines. */
export interface Variant {
  readonly subject: CaseSubject;
  /** How likely it is before anything is read. */
  readonly share: number;
}

/** Leaks of an ordinary machine, as shares of the fan's whole flow at its whole suction, and dust in its media. */
interface Own {
  readonly share: number;
  /** Behind the hose, before the filters. */
  readonly atInlet: number;
  /** Leak behind the filters; null for the fitted value. */
  readonly atSeal: number | null;
  /** Drop of the loaded media against clean ones, since the baselines. */
  readonly media: number;
}

/**
 * Where an ordinary machine leaks is never known, nor what a few weeks have put in its media: each is thought of and
 * weighed with the faults. Moorwind defaults, modelling choices.
 */
const OWN: readonly Own[] = [
  { share: 0.3, atInlet: 0, atSeal: null, media: 1 },
  { share: 0.26, atInlet: 0.012, atSeal: 0.004, media: 1.3 },
  { share: 0.2, atInlet: 0.03, atSeal: 0.006, media: 1.2 },
  { share: 0.08, atInlet: 0.06, atSeal: 0.01, media: 1.1 },
  { share: 0.16, atInlet: 0.006, atSeal: 0.03, media: 1.4 },
];

/** Area that lets in a share of the fan's whole flow at its whole suction, m2. */
const areaOf = (share: number, { p0Pa, qMaxM3s }: PathParameters, densityKgM3: number): number =>
  (share * qMaxM3s) / (Math.sqrt(p0Pa) * leakConductance({ areaM2: 1, densityKgM3 }));

const loaded = (model: MachineModel, state: PathState, media: number): PathState['stages'] => {
  const stages: Record<number, StageState> = { ...state.stages };
  model.stages.forEach((s, i) => {
    const held = stages[i] ?? CLEAN;
    if (s.spec.air.form === 'medium') stages[i] = { ...held, blockFactor: held.blockFactor * media };
  });
  return stages;
};

/** The machine of a case in each way it may be when sound, likeliest first; the first is as its model was fitted. */
export const variantsOf = (subject: CaseSubject): readonly Variant[] => {
  const { model, parameters, state } = subject.faultSimulator.suspect;
  const inlet = gapOfPlace(
    model.stages.map((s) => s.kind),
    'inlet',
  );
  return OWN.map(({ share, atInlet, atSeal, media }): Variant => {
    if (atInlet === 0 && atSeal === null) return { subject, share };
    const area = (x: number) => areaOf(x, parameters, state.air.densityKgM3);
    const own: PathParameters = { ...parameters, leakM2: atSeal === null ? parameters.leakM2 : area(atSeal) };
    const then: PathState = {
      ...state,
      leaksM2: { ...state.leaksM2, [inlet]: (state.leaksM2[inlet] ?? 0) + area(atInlet) },
    };
    const was = faultSimulatorOf({ model, parameters: own, state: then }).sound;
    const now = faultSimulatorOf(
      { model, parameters: own, state: { ...then, stages: loaded(model, then, media) } },
      was,
    );
    return { subject: { ...subject, faultSimulator: now }, share };
  });
};
