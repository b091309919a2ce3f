import { MACHINE_KINDS } from '@/core/machine/kinds';
import type { WorkAsked } from '@/contracts/work';
import { assessDust } from '@/core/dust/assess';
import { dayAt, daysBetween } from '@/core/calendar/calendar-date';
import type { MachineStatus } from '@/core/status/machine-status';
import { holdOf } from '@/core/procedure/job-log';
import { bondingStanding } from '@/core/for-work/bonding';
import type { CircuitAnswer } from '@/core/for-work/circuit';
import { type Demand, demandOf } from '@/core/for-work/demand';
import {
  distinctHoses,
  type HoseLimits,
  type HoseLine,
  type Pair,
  rankHoses,
  SOLD_BORES_M,
} from '@/core/for-work/hose-choice';
import { type Candidate, judgeMachine, type MachineVerdict, rankMachines } from '@/core/for-work/judge-machine';
import type { StageLasting } from '@/core/forecast/lasting';
import {
  besideOf,
  type Hose,
  type Predicted,
  oneBranch,
  predictThrough,
  sameHose,
  type Standing,
  throughY,
  toolsOnHose,
} from '@/core/for-work/predict';
import type { WorkQuestion } from '@/core/for-work/question';
import { loadChanges } from '../../repositories/changes';
import { loadRegister } from '../../repositories/dusts';
import { loadAway } from '../../repositories/plans';
import { loadTests } from '../../repositories/tests';
import { loadBonding } from '../../repositories/tools';
import { airPathOfBench, type AirPathPage } from '../measuring/air-path';
import type { Context } from '../yard/user-action';
import { circuitOf } from './work-circuit';
import { loadYard, type Yard } from '../yard/yard';
import { lastingIn } from '../plan/yard-outlook';

/** Flow and velocity of one bore over the lengths that are drawn. */
export interface HoseCurve {
  readonly boreM: number;
  readonly points: readonly Predicted[];
}

export interface WorkAnswer {
  readonly yard: Yard;
  readonly question: WorkQuestion;
  readonly demand: Demand;
  /** The demands of the second tool on a Y, where it differs. */
  readonly besideDemand: Demand | null;
  /** Every hose of the yard, once. */
  readonly hoses: readonly Hose[];
  /** The best first; those that may not, last. */
  readonly verdicts: readonly MachineVerdict[];
  /** The machine whose hoses are compared: the wanted one, else the best; null without one. */
  readonly chosen: MachineVerdict | null;
  /** Its air path, for what passes its filters. */
  readonly chosenPath: AirPathPage | null;
  /** Every bore that is sold, over the length, on that machine. */
  readonly curves: readonly HoseCurve[];
  readonly limits: HoseLimits;
  readonly circuit: CircuitAnswer | null;
  /** Tags of the machines that own each size of hose. */
  readonly ownersOf: (hose: Hose) => readonly string[];
}

export interface WorkAsking extends Pick<WorkAsked, 'question' | 'figures' | 'beside'> {
  /** Tag of the machine whose hoses are compared; '' for the best. */
  readonly tag: string;
}

/** Largest number of machines whose air is computed in a large yard: the best fitting ones. A modelling choice. */
const MOST_MODELLED = 60;
/** Lengths that are drawn, m. */
const LENGTHS_M = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15] as const;
/** Three metres of hose where a machine's record has no length. */
const USUAL_LENGTH_M = 3;

interface Asked {
  readonly page: AirPathPage;
  readonly standing: Standing;
  readonly lasting: readonly StageLasting[];
}
type Modelled = (status: MachineStatus) => Promise<Asked>;

/** The present machine, at the voltage that reaches it, and how long its filters and bags last. */
const standingOf =
  (context: Context, yard: Yard, { machineV, hours }: { machineV: number | null; hours: number | null }): Modelled =>
  async (status) => {
    const { machine } = status;
    const { id, nominalVolts } = machine;
    const [tests, changes] = [await loadTests(context.db, id), await loadChanges(context.db, yard.site.timeZone, id)];
    const page = airPathOfBench({ yard, status, tests, changes });
    const { modelled, view } = page;
    // Never more than the plate: a good supply makes no better machine.
    const ratio = machineV === null ? 1 : Math.min(1, Math.sqrt(machineV / nominalVolts));
    const state = view.today.state;
    return {
      page,
      standing: {
        model: modelled.model,
        parameters: modelled.parameters,
        basis: modelled.basis,
        state: { ...state, drive: { ...state.drive, speedRatio: state.drive.speedRatio * ratio } },
      },
      lasting: lastingIn({ yard, machine, tests, changes }, hours),
    };
  };

const ownHose = ({ machine }: MachineStatus): Hose | null =>
  machine.hoseBoreM === null ? null : { boreM: machine.hoseBoreM, lengthM: machine.hoseLengthM ?? USUAL_LENGTH_M };

/** Every hose of a vacuum in the yard. A collector keeps to its duct. */
const hosesOf = (yard: Yard): readonly Hose[] =>
  distinctHoses(yard.machines.flatMap((s) => (MACHINE_KINDS[s.machine.kind].collector ? [] : (ownHose(s) ?? []))));

const ownersIn =
  (yard: Yard) =>
  (hose: Hose): readonly string[] =>
    yard.machines.flatMap((s) => {
      const own = ownHose(s);
      return own && sameHose(own, hose) ? [s.machine.tag] : [];
    });

const limitsFor = (demand: Demand, status: MachineStatus | null): HoseLimits => ({
  mustM3s: demand.mustM3s,
  hoseMs: status && MACHINE_KINDS[status.machine.kind].collector ? demand.ductMs.lowMs : demand.hoseMs,
});

/** Facts about every machine of the yard beside its own records. */
export interface Around {
  readonly yard: Yard;
  readonly away: Awaited<ReturnType<typeof loadAway>>;
  readonly bonding: Awaited<ReturnType<typeof loadBonding>>;
}

export const loadAround = async ({ db }: Pick<Context, 'db'>, yard: Yard): Promise<Around> => ({
  yard,
  away: await loadAway(db),
  bonding: await loadBonding(db),
});

/** A machine as a candidate for work, before its air is computed. */
export const candidateOf = ({ yard, away, bonding }: Around, status: MachineStatus): Candidate => {
  const { machine, due, latest } = status;
  const job = yard.openJobs.get(machine.id);
  const gone = away.get(machine.id);
  return {
    machine,
    due,
    testedDaysAgo: latest
      ? daysBetween({ from: dayAt(latest.record.performedAt, yard.site.timeZone), to: yard.today })
      : null,
    somebodyAtIt: job !== undefined && job.driesUntil === null,
    drying: holdOf(job) === 'drying',
    away: gone !== undefined && gone.from <= yard.today && yard.today <= gone.to,
    caseOpen: yard.openCases.has(machine.id),
    moreThanBaseline: latest?.baseline.outcome === 'more',
    changedSince: status.need.kind === 'measureAgain' && status.need.because === 'changed',
    lasting: [],
    bonding: bondingStanding(bonding.get(machine.id) ?? [], yard.today),
    hoses: [],
  };
};

interface Tried {
  readonly hoses: readonly Hose[];
  readonly own: Hose | null;
  readonly limits: HoseLimits;
  /** The second tool on a Y: its hose, where it is another one, and what it asks for. */
  readonly beside: { readonly hose: Hose | null; readonly limits: HoseLimits } | null;
}

/** What each hose would give, and what the second tool gets meanwhile. */
const linesOf = (standing: Standing, { hoses, own, limits, beside }: Tried): readonly HoseLine[] =>
  rankHoses(
    hoses.flatMap((hose): readonly Pair[] => {
      // Where both tools share one hose, the second hose is not asked for.
      const other = beside ? (toolsOnHose(standing) > 1 ? hose : (beside.hose ?? hose)) : null;
      const predicted = predictThrough(other ? besideOf(standing, other) : standing, hose);
      if (!predicted) return [];
      if (!beside || !other) return [{ predicted, beside: null }];
      const second = predictThrough(besideOf(standing, hose), other);
      return second ? [{ predicted, beside: { predicted: second, limits: beside.limits } }] : [];
    }),
    limits,
    own,
  );

interface Desk {
  readonly around: Around;
  readonly asking: WorkAsking;
  readonly demand: Demand;
  readonly besideDemand: Demand | null;
  readonly modelled: Modelled;
  readonly hoses: readonly Hose[];
}

const readyFor = (question: WorkQuestion, standing: Standing): Standing =>
  question.tools === 2 ? throughY(standing) : oneBranch(standing);

/** One machine with its air and its dust computed. */
const judgedWithAir = async (desk: Desk, status: MachineStatus, bare: Candidate): Promise<MachineVerdict> => {
  const { asking, demand, besideDemand, hoses } = desk;
  const { question, beside } = asking;
  const own = ownHose(status);
  const fixed = MACHINE_KINDS[status.machine.kind].collector;
  const tried = fixed ? (own ? [own] : []) : distinctHoses([...(own ? [own] : []), ...hoses]);
  const { standing, lasting } = await desk.modelled(status);
  const lines =
    question.tool === null
      ? []
      : linesOf(readyFor(question, standing), {
          hoses: tried,
          own,
          limits: limitsFor(demand, status),
          beside: beside && besideDemand ? { hose: beside.hose, limits: limitsFor(besideDemand, status) } : null,
        });
  return judgeMachine({ ...bare, hoses: lines, lasting }, { question, demand });
};

/** Every machine, the best first. The model is used only for machines without another refusal. */
const judgedOf = async (desk: Desk): Promise<readonly MachineVerdict[]> => {
  const { around, asking, demand } = desk;
  const { question } = asking;
  const bare = rankMachines(
    around.yard.machines.map((status) => judgeMachine(candidateOf(around, status), { question, demand })),
    demand,
  );
  const verdicts: MachineVerdict[] = [];
  let modelledOnes = 0;
  for (const verdict of bare) {
    const status = around.yard.machines.find((s) => s.machine.id === verdict.candidate.machine.id);
    const ask = status && verdict.whyNot.length === 0 && modelledOnes < MOST_MODELLED;
    if (ask) modelledOnes += 1;
    verdicts.push(ask ? await judgedWithAir(desk, status, verdict.candidate) : verdict);
  }
  return rankMachines(verdicts, demand);
};

/** The machine and hose for a work: answers for every machine of the yard in its present state. */
export const answerWork = async (context: Context, asking: WorkAsking): Promise<WorkAnswer> => {
  const yard = await loadYard(context);
  const { question, tag, beside } = asking;
  const register = await loadRegister(context.db);
  const demand = demandOf(question, assessDust(register, question.dust));
  const circuit = circuitOf(asking.figures, question, yard);
  const machineV = circuit?.machineV ?? null;
  const desk: Desk = {
    around: await loadAround(context, yard),
    asking,
    demand,
    besideDemand: beside && demandOf(beside.question, assessDust(register, question.dust)),
    modelled: standingOf(context, yard, { machineV, hours: question.hours }),
    hoses: hosesOf(yard),
  };
  const ranked = await judgedOf(desk);
  const chosen =
    ranked.find((v) => v.candidate.machine.tag.toUpperCase() === tag.toUpperCase()) ??
    ranked.find((v) => v.whyNot.length === 0) ??
    null;
  const status = chosen && (yard.machines.find((s) => s.machine.id === chosen.candidate.machine.id) ?? null);
  const draws = status && question.tool !== null && !MACHINE_KINDS[status.machine.kind].collector;
  const worked = status ? await desk.modelled(status) : null;
  const drawn = worked && draws ? readyFor(question, worked.standing) : null;
  const curves = drawn
    ? SOLD_BORES_M.map((boreM) => ({
        boreM,
        points: LENGTHS_M.flatMap((lengthM) => predictThrough(drawn, { boreM, lengthM }) ?? []),
      }))
    : [];
  return {
    yard,
    question,
    demand,
    besideDemand: desk.besideDemand,
    verdicts: ranked,
    chosen,
    chosenPath: worked?.page ?? null,
    curves,
    limits: limitsFor(demand, status),
    circuit,
    hoses: desk.hoses,
    ownersOf: ownersIn(yard),
  };
};
