import { fail, failure, ok, type Result } from '../failure/failure';
import { waysToClean } from '../dust/care';
import { integrityTestsOf } from '../machine/integrity';
import type { DustHazard } from '../dust/level';
import type { Machine, Stage } from '../machine/machine';
import type { ChangeSchool, ProcedureId } from './step';

/** A job on a machine: a part to change, or something that is done to the whole. */
export type JobScope =
  | { readonly kind: 'change'; readonly stage: number; readonly school: ChangeSchool }
  | { readonly kind: Care; readonly stage: number }
  | { readonly kind: WholeJob };

/** What is done to the machine rather than to one stage. */
export const WHOLE_JOBS = [
  'hosePlug',
  'indicatorCheck',
  'service',
  'commissioning',
  'fullSet',
  'decontamination',
] as const;
export type WholeJob = (typeof WHOLE_JOBS)[number];

/** The jobs on the whole machine that make sense for its kind. */
export const wholeJobsOf = ({ kind, stages }: Machine): readonly WholeJob[] =>
  WHOLE_JOBS.filter((job) =>
    job === 'fullSet'
      ? kind === 'floorCleaner'
      : job === 'hosePlug'
        ? stages.some((s) => s.kind === 'hose')
        : job === 'indicatorCheck'
          ? stages.some((s) => s.spec.fit.gaugePa !== null) ||
            kind === 'mExtractor' ||
            kind === 'hExtractor' ||
            kind === 'fumeExtractor'
          : true,
  );

/** What cares for a stage without a new part of its own. */
export const CARES = ['purge', 'wash', 'section'] as const;
export type Care = (typeof CARES)[number];

/** The class an element carries for its machine; null where it carries none. */
export const classCarried = (machine: Pick<Machine, 'machineClass'>, stage: Pick<Stage, 'kind'>) =>
  stage.kind === 'hepa' || stage.kind === 'mainFilter' || integrityTestsOf(machine, stage).length > 0
    ? machine.machineClass
    : null;

/** The ways a stage's medium may be cleaned after what its machine has collected, and why there are none. */
export const cleaningOf = (machine: Machine, stage: Stage): ReturnType<typeof waysToClean> =>
  stage.spec.air.form === 'medium'
    ? waysToClean(stage.spec.air.medium, {
        standing: { dusts: machine.dust.standing.dusts, level: machine.hazard },
        carriesClass: classCarried(machine, stage),
      })
    : { ways: [], because: 'medium' };

/** Whether a stage can be purged by pulses, washed though it has a spare too, or sectioned off, after what was collected. Source: common practice, no published source. */
export const careOf = (machine: Machine, stage: Stage): readonly Care[] => {
  const { kind, spec, part, doNotRemove } = stage;
  if (kind === 'dropChamber') return doNotRemove ? [] : ['section'];
  if (spec.air.form !== 'medium') return [];
  const { ways } = cleaningOf(machine, stage);
  // The machine's own pulses clean in its place and open nothing: they are no cleaning by hand.
  const built =
    (machine.kind === 'mExtractor' && kind === 'mainFilter') ||
    (machine.kind === 'grinderExtractor' && kind === 'prefilter') ||
    (spec.fit.gaugePa !== null && (kind === 'mainFilter' || kind === 'canister'));
  const pulses = built && spec.air.medium !== 'hepaGlass';
  const washes = !doNotRemove && part !== null && ways.includes('wash');
  return [...(pulses ? (['purge'] as const) : []), ...(washes ? (['wash'] as const) : [])];
};

type Offer = Readonly<Partial<Record<ChangeSchool, ProcedureId>>>;

const bagOffer = ({ kind }: Machine): Offer => {
  switch (kind) {
    case 'hExtractor':
      return { off: 'safetyBag' };
    case 'hepaTank':
      return { headAside: 'tankBagHeadAside', secondVacuum: 'tankBagSecondVacuum', off: 'plainBag' };
    case 'pneumaticHepa':
      return { running: 'filterBags' };
    case 'singleStageCollector':
    case 'cycloneCollector':
      return { off: 'collectorEmpty' };
    case 'centralUnit':
      return { off: 'centralCan' };
    default:
      return { off: 'plainBag' };
  }
};

const washable = (machine: Machine, stage: Stage): boolean => cleaningOf(machine, stage).ways.includes('wash');

/** The ways a stage of a machine can be changed, as its maker built it; empty for what is not changed. Source: common practice, no published source. */
export const offersOf = (machine: Machine, stage: Stage): Offer => {
  if (stage.doNotRemove) return {};
  switch (stage.kind) {
    case 'bag':
      return bagOffer(machine);
    case 'cyclone':
      return machine.kind === 'pneumaticHepa' ? { running: 'cycloneBag' } : { off: 'collectorEmpty' };
    case 'dropChamber':
      return { off: 'endlessLiner' };
    case 'prefilter':
      if (machine.kind === 'hepaTank') return { headAside: 'prefilterWrap' };
      return {
        off:
          machine.kind === 'grinderExtractor'
            ? 'plainFilter'
            : machine.kind !== 'floorCleaner'
              ? 'stackedFilter'
              : stage.part || !washable(machine, stage)
                ? 'plainFilter'
                : 'wash',
      };
    case 'hepa':
      return { off: machine.kind === 'hepaTank' ? 'screwHepa' : 'stackedFilter' };
    case 'mainFilter':
      return { off: machine.kind === 'hExtractor' ? 'boltedMainFilter' : 'plainFilter' };
    case 'gas':
      return { off: 'gasStage' };
    case 'foam':
    case 'cloth':
      return { off: stage.part || !washable(machine, stage) ? 'plainFilter' : 'wash' };
    case 'canister':
    case 'exhaustFilter':
      return { off: 'plainFilter' };
    default:
      return {};
  }
};

export interface Chosen {
  readonly id: ProcedureId;
  readonly school: ChangeSchool;
  readonly position: number;
}

const ofWhole = (kind: WholeJob, machine: Machine): Chosen => {
  const hose = machine.stages.findIndex((s) => s.kind === 'hose' || s.kind === 'duct');
  const medium = machine.stages.findIndex((s) => s.spec.air.form === 'medium');
  const bag = machine.stages.findIndex((s) => s.kind === 'bag');
  return {
    id: kind,
    school: 'off',
    position: Math.max(0, kind === 'hosePlug' ? hose : kind === 'fullSet' && bag >= 0 ? bag : medium),
  };
};

/**
 * The procedure a job asks for on a machine. Returns `stage.unknown`, `stage.not-changeable`, or `procedure.school` with
 * the schools the machine allows. Source: common practice, no published source.
 */
export const chooseProcedure = (machine: Machine, job: JobScope): Result<Chosen> => {
  if (!('stage' in job)) return ok(ofWhole(job.kind, machine));
  const stage = machine.stages[job.stage];
  if (!stage) return fail(failure('stage.unknown', 'stage', { tag: machine.tag }));
  if (job.kind !== 'change') {
    const cares = careOf(machine, stage);
    if (cares.includes(job.kind))
      return ok({ id: job.kind === 'section' ? 'linerSection' : job.kind, school: 'off', position: job.stage });
    // A medium that has no spare is washed as its change, where it may be washed at all.
    if (job.kind === 'wash' && offersOf(machine, stage).off === 'wash')
      return ok({ id: 'wash', school: 'off', position: job.stage });
    return fail(
      failure('part.not-cleanable', 'stage', {
        stage: stage.name,
        because: cleaningOf(machine, stage).because ?? 'medium',
      }),
    );
  }
  const offers = offersOf(machine, stage);
  const allowed = Object.keys(offers);
  if (allowed.length === 0) return fail(failure('stage.not-changeable', 'stage', { stage: stage.name }));
  const id = offers[job.school];
  return id
    ? ok({ id, school: job.school, position: job.stage })
    : fail(failure('procedure.school', 'school', { stage: stage.name, allowed: allowed.join(', ') }));
};

/** For the worst dusts the second vacuum is proposed first; otherwise the maker's ways in their own order. */
export const inOrder = <T extends { readonly school: ChangeSchool }>(
  ways: readonly T[],
  hazard: DustHazard,
): readonly T[] => {
  const rank = (school: ChangeSchool): number => (hazard === 'contained' && school === 'secondVacuum' ? 0 : 1);
  return [...ways].sort((a, b) => rank(a.school) - rank(b.school));
};
