import { blockFactorOf, loadOfShare } from '../path/handle';
import { CLEAN, type MachineModel, type PathParameters, type PathState, type StageState } from '../path/machine-path';
import type { Fault } from './fault';

/** Areas of a leak by severity, mm2: from a scratch to a hole a thumb goes through. */
const SEAL_LEAK_MM2 = [20, 400] as const;
const HOSE_LEAK_MM2 = [25, 800] as const;
const MM2 = 1e-6;

const between = ([low, high]: readonly [number, number], severity: number): number => low * (high / low) ** severity;

/** Part of the speed that is lost by severity: worn brushes, low voltage, a wrong setting. */
const SPEED_LOST = { weakFan: 0.5, lowVoltage: 0.25, wrongSetting: 0.45, bearings: 0.03 } as const;

interface Context {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
}

const stageChange = (f: Fault, held: StageState, { model, parameters }: Context): StageState => {
  const medium = model.stages[f.position]?.spec.air.form === 'medium';
  switch (f.kind) {
    case 'blocked':
      return medium ? { ...held, loadPaSM3: held.loadPaSM3 + loadOfShare(f.severity, parameters) } : { ...held, blockFactor: held.blockFactor * blockFactorOf(f.severity) };
    case 'missing':
      return { ...held, removed: true };
    case 'torn':
    case 'misseated':
      // What goes round the medium is not resisted: a share of the air sees next to nothing of it.
      return { ...held, loadPaSM3: held.loadPaSM3 * (1 - 0.7 * f.severity), blockFactor: held.blockFactor * (1 - 0.5 * f.severity) };
    default:
      return held;
  }
};

const leakOf = (f: Fault): { readonly node: number; readonly areaM2: number } | null => {
  if (f.kind === 'leakingSeal') return { node: f.position, areaM2: between(SEAL_LEAK_MM2, f.severity) * MM2 };
  // A holed hose leaks along its length; at its end, where the suction is deepest, it costs most.
  return f.kind === 'hoseHoled' ? { node: f.position + 1, areaM2: between(HOSE_LEAK_MM2, f.severity) * MM2 } : null;
};

const driveChange = (f: Fault, drive: PathState['drive'], { model }: Context): PathState['drive'] => {
  if (f.kind === 'lowSupply') {
    const air = model.stages[f.position]?.spec.air;
    const nominal = air?.form === 'fan' && air.curve.kind === 'pneumatic' ? air.curve.nominalSupplyPa : 0;
    return { ...drive, supplyPa: nominal * (1 - 0.7 * f.severity) };
  }
  const lost = f.kind === 'weakFan' || f.kind === 'lowVoltage' || f.kind === 'wrongSetting' || f.kind === 'bearings' ? SPEED_LOST[f.kind] * f.severity : 0;
  return { ...drive, speedRatio: drive.speedRatio * (1 - lost) };
};

/** How a machine stands with faults laid over its state of today. Source: the air-path model; sizes are Moorwind defaults. */
export const withFaults = (state: PathState, faults: readonly Fault[], context: Context): PathState =>
  faults.reduce<PathState>((s, f) => {
    const leak = leakOf(f);
    return {
      ...s,
      stages: { ...s.stages, [f.position]: stageChange(f, s.stages[f.position] ?? CLEAN, context) },
      leaksM2: leak ? { ...s.leaksM2, [leak.node]: (s.leaksM2[leak.node] ?? 0) + leak.areaM2 } : s.leaksM2,
      drive: driveChange(f, s.drive, context),
    };
  }, state);
