import { fail, failure, ok, type Result } from '../failure/failure';
import type { Machine, Stage } from '../machine/machine';
import type { ChangeSchool, ProcedureId } from './step';

/** A job on a machine: a part to change, or something that is done to the whole. */
export type Job =
  | { readonly kind: 'change'; readonly stage: number; readonly school: ChangeSchool }
  | { readonly kind: 'purge' | 'wash'; readonly stage: number }
  | { readonly kind: WholeJob };

/** What is done to the machine rather than to one stage. */
export type WholeJob = 'hosePlug' | 'service' | 'indicatorCheck' | 'commissioning' | 'fullSet';

const WHOLE_JOBS: readonly WholeJob[] = ['hosePlug', 'indicatorCheck', 'service', 'commissioning', 'fullSet'];

/** The jobs on the whole machine that make sense for its kind. */
export const wholeJobsOf = ({ kind, stages }: Machine): readonly WholeJob[] =>
  WHOLE_JOBS.filter((job) => (job === 'fullSet' ? kind === 'floorCleaner' : job === 'hosePlug' ? stages.some((s) => s.kind === 'hose') : job === 'indicatorCheck' ? stages.some((s) => s.spec.fit.gaugePa !== null) || kind === 'mExtractor' || kind === 'hExtractor' || kind === 'fumeExtractor' : true));

/** Whether a stage can be purged by pulses, or washed though it has a spare too. Source: common practice, no published source. */
export const careOf = ({ kind, spec, part, doNotRemove }: Stage): readonly ('purge' | 'wash')[] => {
  if (spec.air.form !== 'medium') return [];
  const pulses = kind === 'mainFilter' || kind === 'canister' || kind === 'cloth' || kind === 'dropChamber';
  const washes = (kind === 'cloth' || kind === 'foam') && part !== null && !doNotRemove;
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
      return { off: machine.kind !== 'floorCleaner' ? 'stackedFilter' : stage.part ? 'plainFilter' : 'wash' };
    case 'hepa':
      return { off: machine.kind === 'hepaTank' ? 'screwHepa' : 'stackedFilter' };
    case 'mainFilter':
      return { off: machine.kind === 'hExtractor' ? 'boltedMainFilter' : 'plainFilter' };
    case 'gas':
      return { off: 'gasStage' };
    case 'foam':
    case 'cloth':
      return { off: stage.part ? 'plainFilter' : 'wash' };
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
  return { id: kind, school: 'off', position: Math.max(0, kind === 'hosePlug' ? hose : kind === 'fullSet' && bag >= 0 ? bag : medium) };
};

/**
 * The procedure a job asks for on a machine. Returns `stage.unknown`, `stage.not-changeable`, or `procedure.school` with
 * the schools the machine allows. Source: common practice, no published source.
 */
export const chooseProcedure = (machine: Machine, job: Job): Result<Chosen> => {
  if (!('stage' in job)) return ok(ofWhole(job.kind, machine));
  const stage = machine.stages[job.stage];
  if (!stage) return fail(failure('stage.unknown', 'stage', { tag: machine.tag }));
  if (job.kind !== 'change') return stage.spec.air.form === 'medium' ? ok({ id: job.kind, school: 'off', position: job.stage }) : fail(failure('stage.not-changeable', 'stage', { stage: stage.name }));
  const offers = offersOf(machine, stage);
  const allowed = Object.keys(offers);
  if (allowed.length === 0) return fail(failure('stage.not-changeable', 'stage', { stage: stage.name }));
  const id = offers[job.school];
  return id ? ok({ id, school: job.school, position: job.stage }) : fail(failure('procedure.school', 'school', { stage: stage.name, allowed: allowed.join(', ') }));
};
