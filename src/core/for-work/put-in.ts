import { type DustStanding, together } from '../dust/assess';
import type { NoCare } from '../dust/care';
import type { CleaningWay } from '../dust/dust';
import type { Machine, Stage, MachineAirPath } from '../machine/machine';
import { cleaningOf } from '../procedure/choose';
import type { Demand } from './demand';
import type { WorkQuestion } from './question';

export const PUT_IN = [
  'wetFoam',
  'slurryMesh',
  'dryStack',
  'fineLayer',
  'bag',
  'sealedBag',
  'keepCloth',
  'noDryParts',
  'plugBranch',
  'addY',
] as const;
/** Parts and settings for a work. Source: handbook of the trade, sections 2, 8 and 9, common practice. */
export type PutIn = (typeof PUT_IN)[number];

/** Fines that blind a cloth or a HEPA quickly. Source: handbook of the trade, section 8, common practice, no published source. */
const BLINDING = new Set(['silica', 'nuisance', 'sensitiser']);
const MESHES = new Set(['silica', 'nuisance', 'wet']);

const isCloth = (s: Stage): boolean => s.spec.air.form === 'medium' && s.spec.air.medium === 'clothBag';

/**
 * The set for this work: dry stack or wet set, the protection of the fine filter, and the kind of bag. Source: common
 * practice, no published source. Valid: a dust that is not refused.
 */
export const putIn = (
  machine: MachineAirPath,
  { wet, standing }: Pick<Demand, 'wet' | 'standing'>,
  tools: WorkQuestion['tools'],
): readonly PutIn[] => {
  const hasY = machine.stages.some((x) => x.kind === 'wye');
  const branches: readonly PutIn[] = tools === 1 ? (hasY ? ['plugBranch'] : []) : hasY ? [] : ['addY'];
  const families = standing.dusts.map((d) => d.family);
  if (wet)
    return [
      'wetFoam',
      ...(families.some((f) => MESHES.has(f)) ? (['slurryMesh'] as const) : []),
      'noDryParts',
      ...branches,
    ];
  const bagged = machine.stages.some((x) => x.kind === 'bag');
  return [
    'dryStack',
    ...(families.some((f) => BLINDING.has(f)) ? (['fineLayer'] as const) : []),
    ...(bagged ? ([standing.level === 'contained' ? 'sealedBag' : 'bag'] as const) : []),
    ...(machine.stages.some(isCloth) ? (['keepCloth'] as const) : []),
    ...branches,
  ];
};

export interface Care {
  readonly stage: Stage;
  readonly ways: readonly CleaningWay[];
  readonly because: NoCare | null;
}

/**
 * How each medium may be cleaned afterwards, by the strictest dust in the machine or from this work. Source: as
 * `cleaningOf`.
 */
export const careAfter = (machine: Machine, standing: DustStanding): readonly Care[] => {
  const all = together([machine.dust.standing, standing]);
  const after = { ...machine, hazard: all.level, dust: { ...machine.dust, standing: all } };
  return after.stages
    .filter((s) => s.spec.air.form === 'medium' && !s.doNotRemove && !s.missing)
    .map((stage) => ({ stage, ...cleaningOf(after, stage) }));
};
