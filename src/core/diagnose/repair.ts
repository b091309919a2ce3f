import { STAGE_KINDS } from '../path/stage-kinds';
import type { ModelStage } from '../path/machine-path';
import type { StageKind } from '../path/stage-kinds';
import { type Fault, type FaultKind } from './fault';

/** Repairs of a fault. Live adjustment of an indicator is left out: trained people do it. */
export const REPAIR_KINDS = [
  'newPart',
  'reseat',
  'clear',
  'newHose',
  'newSeal',
  'serviceFan',
  'supply',
  'settings',
  'indicator',
  'brush',
] as const;
export type RepairKind = (typeof REPAIR_KINDS)[number];

/** A repair done at a stage. */
export interface Repair {
  readonly kind: RepairKind;
  readonly position: number;
}

const CURES: Record<RepairKind, readonly FaultKind[]> = {
  newPart: ['blocked', 'torn', 'misseated', 'missing', 'reversed', 'spentGas'],
  reseat: ['misseated', 'reversed'],
  clear: ['blocked'],
  newHose: ['blocked', 'hoseHoled'],
  newSeal: ['leakingSeal'],
  serviceFan: ['weakFan', 'bearings'],
  supply: ['lowVoltage', 'lowSupply'],
  settings: ['wrongSetting', 'wrongSelector'],
  indicator: ['indicatorOut'],
  brush: ['brushJammed'],
};

/** Whether a repair takes a fault away. Source: common practice, no published source. */
export const cures = (repair: Repair, { kind, position }: Pick<Fault, 'kind' | 'position'>): boolean =>
  repair.position === position && CURES[repair.kind].includes(kind);

export const curedBy = (repairs: readonly Repair[], fault: Pick<Fault, 'kind' | 'position'>): boolean =>
  repairs.some((r) => cures(r, fault));

/** The repair a fault asks for at its stage. Source: common practice, no published source. */
export const repairOf = (
  { kind, position }: Pick<Fault, 'kind' | 'position'>,
  stages: readonly ModelStage[],
): Repair => {
  const medium = stages[position]?.spec.air.form === 'medium';
  const of = (repair: RepairKind): Repair => ({ kind: repair, position });
  switch (kind) {
    case 'blocked':
      return of(medium ? 'newPart' : 'clear');
    case 'missing':
    case 'torn':
    case 'spentGas':
      return of('newPart');
    case 'misseated':
    case 'reversed':
      return of('reseat');
    case 'hoseHoled':
      return of('newHose');
    case 'leakingSeal':
      return of('newSeal');
    case 'weakFan':
    case 'bearings':
      return of('serviceFan');
    case 'lowVoltage':
    case 'lowSupply':
      return of('supply');
    case 'wrongSetting':
    case 'wrongSelector':
      return of('settings');
    case 'indicatorOut':
      return of('indicator');
    case 'brushJammed':
      return of('brush');
  }
};

/** Repairs that leave the machine open. */
export const leavesOpen = ({ kind }: Repair): boolean => kind === 'newPart' || kind === 'reseat' || kind === 'newSeal';

export interface RepairFacts {
  readonly minutes: number;
  /** 0 none to 3 high. */
  readonly exposure: number;
  /** Price of the material, in minutes; a filter's own price follows its kind. */
  readonly partMinutes: number;
}

const fact = (minutes: number, exposure: number, partMinutes: number): RepairFacts => ({
  minutes,
  exposure,
  partMinutes,
});

/**
 * Price of a repair. Minutes: common practice, no published source; the material price is a Moorwind default, a
 * modelling choice.
 */
export const REPAIR_FACTS: Record<RepairKind, RepairFacts> = {
  newPart: fact(3, 2, 0),
  reseat: fact(2, 2, 0),
  clear: fact(4, 1, 0),
  newHose: fact(2, 0, 20),
  newSeal: fact(6, 0, 6),
  serviceFan: fact(30, 0, 60),
  supply: fact(2, 0, 0),
  settings: fact(0.5, 0, 0),
  indicator: fact(5, 0, 20),
  brush: fact(5, 1, 0),
};

/** Minutes' worth of the part a stage takes. Choice: Moorwind defaults, modelling choices. Valid: every kind of stage. */
export const partMinutes = (kind: StageKind | undefined): number => STAGE_KINDS[kind ?? 'fan'].partMinutes;

/** Repairs that could take a fault away, the usual one first: a hose that is blocked or holed may be renewed, a part renewed instead of seated. Source: common practice, no published source. */
export const repairsOf = (
  fault: Pick<Fault, 'kind' | 'position'>,
  stages: readonly ModelStage[],
): readonly Repair[] => {
  const usual = repairOf(fault, stages);
  const stage = stages[fault.position];
  const medium = stage?.spec.air.form === 'medium' && cures({ kind: 'newPart', position: fault.position }, fault);
  const line = (stage?.kind === 'hose' || stage?.kind === 'duct') && fault.kind === 'blocked';
  const dearer: RepairKind | null = medium ? 'newPart' : line ? 'newHose' : null;
  return dearer === null || usual.kind === dearer ? [usual] : [usual, { kind: dearer, position: fault.position }];
};
