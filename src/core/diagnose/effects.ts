import { CLEAN, type MachineModel, type PathParameters, type PathState, type StageState } from '../path/machine-path';
import { blowsOut, type Fault } from './fault';

/** Share of the load and of the blockage that a full tear, or a full gap at the seat, takes out of the air's way. Moorwind defaults. */
const GAP_EASES = { load: 0.4, block: 0.3 } as const;

/**
 * The size of a fault in its own measure: Pa s/m3 of load, a factor of resistance, m2 of leak, a ratio of speed or
 * supply.
 */
export type SizeOf = (fault: Fault) => number;

interface Context {
  readonly model: MachineModel;
  readonly sizeOf: SizeOf;
}

const LEAK_BEHIND_M2 = [2e-5, 3e-4] as const;

const stageChange = (f: Fault, held: StageState, { model, sizeOf }: Context): StageState => {
  const medium = model.stages[f.position]?.spec.air.form === 'medium';
  switch (f.kind) {
    case 'blocked':
      return medium
        ? { ...held, loadPaSM3: held.loadPaSM3 + sizeOf(f) }
        : { ...held, blockFactor: held.blockFactor * sizeOf(f) };
    case 'missing':
      return { ...held, removed: true };
    case 'torn':
    case 'misseated':
      // Air that bypasses the medium meets no resistance: that share of the air sees next to none of it.
      return {
        ...held,
        loadPaSM3: held.loadPaSM3 * (1 - GAP_EASES.load * f.severity),
        blockFactor: held.blockFactor * (1 - GAP_EASES.block * f.severity),
      };
    default:
      return held;
  }
};

/** A setting that lets the room's air in instead of turning the fan down. */
export const isBleed = ({ kind, node }: Pick<Fault, 'kind' | 'node'>): boolean =>
  kind === 'wrongSetting' && node !== undefined;

const leakOf = (f: Fault, { model, sizeOf }: Context): { readonly node: number; readonly areaM2: number } | null => {
  if (f.kind === 'leakingSeal' && blowsOut(model, f.position))
    return { node: f.position, areaM2: LEAK_BEHIND_M2[0] + (LEAK_BEHIND_M2[1] - LEAK_BEHIND_M2[0]) * f.severity };
  if (f.kind !== 'leakingSeal' && f.kind !== 'hoseHoled' && !isBleed(f)) return null;
  return { node: f.node ?? (f.kind === 'hoseHoled' ? f.position + 1 : f.position), areaM2: sizeOf(f) };
};

const BEARINGS_SPEED = 0.97;

const driveChange = (f: Fault, drive: PathState['drive'], { model, sizeOf }: Context): PathState['drive'] => {
  switch (f.kind) {
    case 'lowSupply': {
      const air = model.stages[f.position]?.spec.air;
      const nominal = air?.form === 'fan' && air.curve.kind === 'pneumatic' ? air.curve.nominalSupplyPa : 0;
      return { ...drive, supplyPa: nominal * sizeOf(f) };
    }
    case 'wrongSetting':
      return isBleed(f) ? drive : { ...drive, speedRatio: drive.speedRatio * sizeOf(f) };
    case 'weakFan':
    case 'lowVoltage':
      return { ...drive, speedRatio: drive.speedRatio * sizeOf(f) };
    case 'bearings':
      return { ...drive, speedRatio: drive.speedRatio * BEARINGS_SPEED };
    default:
      return drive;
  }
};

/**
 * The state of a machine with faults added to its state of today. Source: the air-path model; sizes are Moorwind
 * defaults.
 */
export const withFaults = (state: PathState, faults: readonly Fault[], context: Context): PathState => {
  const stages = { ...state.stages };
  const leaksM2 = { ...state.leaksM2 };
  let { drive } = state;
  for (const f of faults) {
    const held = stages[f.position] ?? CLEAN;
    const changed = stageChange(f, held, context);
    if (changed !== held) stages[f.position] = changed;
    const leak = leakOf(f, context);
    if (leak) leaksM2[leak.node] = (leaksM2[leak.node] ?? 0) + leak.areaM2;
    drive = driveChange(f, drive, context);
  }
  return { ...state, stages, leaksM2, drive };
};

/** Smallest and largest size a fault is looked for in, and whether a larger one is worse. */
/** Where the size of a fault is looked for: shares and multiples of the fan's own pressure over flow, of a fitting's loss, of a leak's area, of the speed. */
const SEARCH = { least: 1e-4, mediumMost: 1e4, fittingMost: 1e8, leakMost: 1e2, speedLeast: 0.05 } as const;

const rangeOf = (
  f: Fault,
  { model, parameters }: { readonly model: MachineModel; readonly parameters: PathParameters },
): readonly [harmless: number, worst: number] => {
  const wholeM3s = parameters.qMaxM3s;
  switch (isBleed(f) ? 'leakingSeal' : f.kind) {
    case 'blocked':
      return model.stages[f.position]?.spec.air.form === 'medium'
        ? [(SEARCH.least * parameters.p0Pa) / wholeM3s, (SEARCH.mediumMost * parameters.p0Pa) / wholeM3s]
        : [1, SEARCH.fittingMost];
    case 'hoseHoled':
    case 'leakingSeal':
      // Against the area that passes the fan's whole flow at its whole lift.
      return [
        (SEARCH.least * wholeM3s) / Math.sqrt(parameters.p0Pa),
        (SEARCH.leakMost * wholeM3s) / Math.sqrt(parameters.p0Pa),
      ];
    default:
      return [1, SEARCH.speedLeast];
  }
};

const HALVINGS = 24;

/** Finds the size at which a fault by itself costs its severity of the tool's flow, by halving on a logarithm. */
export const sizeFinder = ({
  model,
  parameters,
  flowWith,
}: {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly flowWith: (fault: Fault | null, sizeOf: SizeOf) => number;
}): SizeOf => {
  const held = new Map<string, number>();
  let sound: number | null = null;
  return (f) => {
    const key = `${f.kind} ${f.position} ${f.node ?? ''} ${f.severity}`;
    const before = held.get(key);
    if (before !== undefined) return before;
    sound ??= flowWith(null, () => 1);
    const [harmless, worst] = rangeOf(f, { model, parameters });
    let [a, b] = [Math.log(harmless), Math.log(worst)];
    for (let i = 0; i < HALVINGS; i += 1) {
      const middle = (a + b) / 2;
      if (flowWith(f, () => Math.exp(middle)) > (1 - f.severity) * sound) a = middle;
      else b = middle;
    }
    const size = Math.exp((a + b) / 2);
    held.set(key, size);
    return size;
  };
};
