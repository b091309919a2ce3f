import { fail, failure, ok, type Result } from '../failure/failure';
import { waysToClean } from '../dust/care';
import { dustParts } from '../machine/dust-parts';
import { MACHINE_KINDS, wayOf } from '../machine/kinds';
import type { DustHazard } from '../dust/level';
import type { Machine, Stage } from '../machine/machine';
import { STAGE_KINDS } from '../path/stage-kinds';
import { CHANGE_SCHOOLS, type ChangeSchool, type ProcedureId } from './step';
import { WAYS } from './ways';

/** A job on a machine: a part to change, or something that is done to the whole. */
export type JobScope =
  | { readonly kind: 'change'; readonly stage: number; readonly school: ChangeSchool }
  | { readonly kind: Care; readonly stage: number }
  | { readonly kind: WholeJob };

/** Jobs on the whole machine. */
export const WHOLE_JOBS = [
  'hosePlug',
  'indicatorCheck',
  'service',
  'commissioning',
  'fullSet',
  'decontamination',
] as const;
export type WholeJob = (typeof WHOLE_JOBS)[number];

/** Whether each job on the whole machine makes sense on it, and the stage it begins at. */
const WHOLE: Record<WholeJob, { readonly fits: (m: Machine) => boolean; readonly from: (m: Machine) => number }> = {
  hosePlug: {
    fits: ({ stages }) => stages.some((s) => s.kind === 'hose' && !s.missing),
    from: ({ stages }) => stages.findIndex((s) => s.kind === 'hose'),
  },
  // A disc over the hose lowers the flow: a light for lack of air comes on; a gauge across a filter only falls.
  indicatorCheck: { fits: ({ kind }) => MACHINE_KINDS[kind].shows.light !== null, from: () => 0 },
  service: { fits: () => true, from: (m) => firstHolder(m) },
  commissioning: { fits: () => true, from: (m) => firstPart(m) },
  fullSet: { fits: ({ kind }) => MACHINE_KINDS[kind].use === 'floors', from: (m) => firstPart(m) },
  decontamination: { fits: () => true, from: (m) => firstHolder(m) },
};

const firstPart = (m: Machine): number =>
  Math.max(
    0,
    m.stages.findIndex((s) => !s.missing && wayOf(m, s) !== null),
  );
const firstHolder = (m: Machine): number => {
  const holder = dustParts(m).find((p) => p.at === 'stage' && p.place !== 'inside');
  return holder?.at === 'stage' ? holder.stage : 0;
};

/** The jobs on the whole machine that make sense for its kind. */
export const wholeJobsOf = (machine: Machine): readonly WholeJob[] =>
  WHOLE_JOBS.filter((job) => WHOLE[job].fits(machine));

/** What cares for a stage without a new part of its own. */
export const CARES = ['purge', 'wash', 'section'] as const;
export type Care = (typeof CARES)[number];

/** The class an element carries for its machine; null where it carries none. */
export const classCarried = (machine: Pick<Machine, 'machineClass'>, stage: Pick<Stage, 'kind'>) =>
  STAGE_KINDS[stage.kind].carriesClass ? machine.machineClass : null;

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
  const way = wayOf(machine, stage);
  if (way === 'liner') return doNotRemove ? [] : ['section'];
  if (spec.air.form !== 'medium') return [];
  const { ways } = cleaningOf(machine, stage);
  // The machine's own pulses clean in place and open nothing: they are not cleaning by hand.
  const built =
    MACHINE_KINDS[machine.kind].pulses.some((k) => k === kind) ||
    (spec.fit.gaugePa !== null && (kind === 'mainFilter' || kind === 'canister'));
  const pulses = built && spec.air.medium !== 'hepaGlass';
  const washes = !doNotRemove && part !== null && ways.includes('wash');
  return [...(pulses ? (['purge'] as const) : []), ...(washes ? (['wash'] as const) : [])];
};

type Offer = Readonly<Partial<Record<ChangeSchool, ProcedureId>>>;

const washable = (machine: Machine, stage: Stage): boolean => cleaningOf(machine, stage).ways.includes('wash');

/** The ways a stage of a machine can be changed, as its maker built it; empty for what is not changed. A medium that has no spare is washed, where it may be. Source: common practice, no published source. */
export const offersOf = (machine: Machine, stage: Stage): Offer => {
  const way = wayOf(machine, stage);
  if (stage.doNotRemove || way === null) return {};
  const washedInstead =
    stage.part === null &&
    !STAGE_KINDS[stage.kind].fills &&
    WAYS[way].changes.off === 'plainFilter' &&
    washable(machine, stage);
  return washedInstead ? { off: 'wash' } : WAYS[way].changes;
};

export interface Chosen {
  readonly id: ProcedureId;
  readonly school: ChangeSchool;
  readonly position: number;
}

/**
 * The procedure a job asks for on a machine. Returns `stage.unknown`, `stage.not-changeable`, or `procedure.school` with
 * the schools the machine allows. Source: common practice, no published source.
 */
export const chooseProcedure = (machine: Machine, job: JobScope): Result<Chosen> => {
  if (!('stage' in job))
    return WHOLE[job.kind].fits(machine)
      ? ok({ id: job.kind, school: 'off', position: WHOLE[job.kind].from(machine) })
      : fail(failure('procedure.not-for-kind', 'job', { job: job.kind, tag: machine.tag }));
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

/** Every job that a machine allows: changes in every school, care of its stages, jobs on the whole. Source: common practice, no published source. */
export const everyJobOf = (machine: Machine): readonly JobScope[] => [
  ...machine.stages.flatMap((of, stage) =>
    CHANGE_SCHOOLS.filter((school) => offersOf(machine, of)[school] !== undefined).map((school): JobScope => ({
      kind: 'change',
      stage,
      school,
    })),
  ),
  ...wholeJobsOf(machine).map((kind): JobScope => ({ kind })),
  ...machine.stages.flatMap((of, stage) => careOf(machine, of).map((kind): JobScope => ({ kind, stage }))),
];
