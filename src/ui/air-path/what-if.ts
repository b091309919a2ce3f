import type { PathView } from '@/core/calibrate/path-view';
import { type Handle, blockFactorOf, handleOf, loadOfShare } from '@/core/path/handle';
import { CLEAN, type PathState } from '@/core/path/machine-path';
import { speedRatioOfVoltage } from '@/core/path/model/fan';

/** Position of each handle: 0 clean or open, near 1 shut. */
export interface WhatIf {
  readonly selected: number;
  readonly loads: Readonly<Record<number, number>>;
  readonly blocks: Readonly<Record<number, number>>;
  readonly removed: readonly number[];
  /** Leak area in mm2 by node; node i lies before stage i. */
  readonly leaksMm2: Readonly<Record<number, number>>;
  readonly hose: { readonly boreM: number; readonly lengthM: number } | null;
  readonly volts: number;
  readonly supplyShare: number;
}

export type WhatIfAction =
  | { readonly type: 'select'; readonly position: number }
  | { readonly type: 'pull'; readonly position: number; readonly to: number }
  | { readonly type: 'nudge'; readonly position: number; readonly by: number }
  | { readonly type: 'remove'; readonly position: number; readonly out: boolean }
  | { readonly type: 'leak'; readonly node: number; readonly areaMm2: number }
  | { readonly type: 'hose'; readonly hose: WhatIf['hose'] }
  | { readonly type: 'volts'; readonly volts: number }
  | { readonly type: 'supply'; readonly share: number }
  | { readonly type: 'reset'; readonly to: WhatIf };

/** The farthest a handle goes: fifty times the fan's own scale, next to nothing flows. */
export const FARTHEST = 0.98;

const held = (t: number): number => Math.min(FARTHEST, Math.max(0, t));

/** Load in Pa s/m3 at a pull. */
export const loadOfPull = (t: number, view: PathView): number => loadOfShare(held(t), view.parameters);
const pullOfLoad = (load: number, { parameters: { p0Pa, qMaxM3s } }: PathView): number =>
  held(load / (load + p0Pa / qMaxM3s));

const kindAt = (view: PathView, position: number): Handle => {
  const stage = view.model.stages[position];
  return stage ? handleOf(stage) : 'none';
};

/** The tallest step that can be loaded, else the first. */
const firstSelected = (view: PathView): number => {
  const steps = view.now?.steps ?? [];
  const media = steps.filter((s) => kindAt(view, s.position) === 'load');
  const tallest = [...media].sort((a, b) => b.dropPa - a.dropPa)[0];
  return tallest?.position ?? 0;
};

/** What-if starts in the present state of the machine. */
export const startWhatIf = (view: PathView): WhatIf => ({
  selected: firstSelected(view),
  loads: Object.fromEntries(
    Object.entries(view.today.state.stages).map(([position, s]) => [position, pullOfLoad(s.loadPaSM3, view)]),
  ),
  blocks: {},
  removed: [],
  leaksMm2: {},
  hose: null,
  volts: view.nominalVolts,
  supplyShare: 1,
});

const pull = (s: WhatIf, view: PathView, { position, to }: { position: number; to: number }): WhatIf => {
  switch (kindAt(view, position)) {
    case 'load':
      return { ...s, selected: position, loads: { ...s.loads, [position]: held(to) } };
    case 'block':
      return { ...s, selected: position, blocks: { ...s.blocks, [position]: held(to) } };
    case 'drive':
    case 'none':
      return { ...s, selected: position };
  }
};

export const pullAt = (s: WhatIf, view: PathView, position: number): number =>
  (kindAt(view, position) === 'load' ? s.loads[position] : s.blocks[position]) ?? 0;

/** The reducer of what-if. */
export const whatIfReducer =
  (view: PathView) =>
  (s: WhatIf, a: WhatIfAction): WhatIf => {
    switch (a.type) {
      case 'select':
        return { ...s, selected: a.position };
      case 'pull':
        return pull(s, view, a);
      case 'nudge':
        return pull(s, view, { position: a.position, to: pullAt(s, view, a.position) + a.by });
      case 'remove':
        return { ...s, removed: a.out ? [...s.removed, a.position] : s.removed.filter((p) => p !== a.position) };
      case 'leak':
        return { ...s, leaksMm2: { ...s.leaksMm2, [a.node]: Math.max(0, a.areaMm2) } };
      case 'hose':
        return { ...s, hose: a.hose };
      case 'volts':
        return { ...s, volts: a.volts };
      case 'supply':
        return { ...s, supplyShare: a.share };
      case 'reset':
        return a.to;
    }
  };

const driveOf = (s: WhatIf, view: PathView): PathState['drive'] => {
  const curve = view.model.stages.map((x) => x.spec.air).find((a) => a.form === 'fan')?.curve;
  const speedRatio =
    curve?.kind === 'universal' ? speedRatioOfVoltage({ volts: s.volts, nominalVolts: view.nominalVolts }) : 1;
  return { speedRatio, supplyPa: curve?.kind === 'pneumatic' ? curve.nominalSupplyPa * s.supplyShare : null };
};

/** The state the model is asked for. */
export const stateOfWhatIf = (s: WhatIf, view: PathView): PathState => ({
  stages: Object.fromEntries(
    view.model.stages.map((_, i) => [
      i,
      {
        ...CLEAN,
        loadPaSM3: loadOfPull(s.loads[i] ?? 0, view),
        blockFactor: blockFactorOf(held(s.blocks[i] ?? 0)),
        removed: s.removed.includes(i),
      },
    ]),
  ),
  leaksM2: Object.fromEntries(Object.entries(s.leaksMm2).map(([node, mm2]) => [node, mm2 * 1e-6])),
  hose: s.hose,
  drive: driveOf(s, view),
  air: view.today.state.air,
});
