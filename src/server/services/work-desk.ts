import type { WorkFigures } from '@/contracts/work';
import { assessDust } from '@/core/dust/assess';
import { dayAt, daysBetween } from '@/core/calendar/calendar-date';
import type { MachineStatus } from '@/core/status/machine-status';
import { isCollector } from '@/core/machine/stage-templates';
import { doNotRun } from '@/core/procedure/job-log';
import { type CircuitAnswer, judgeCircuit } from '@/core/for-work/circuit';
import { type Demand, demandOf } from '@/core/for-work/demand';
import { distinctHoses, type HoseLimits, type HoseLine, rankHoses, SOLD_BORES_M } from '@/core/for-work/hose-choice';
import { type Candidate, judgeMachine, type MachineVerdict, rankMachines } from '@/core/for-work/judge-machine';
import {
  type Hose,
  type Predicted,
  oneBranch,
  predictThrough,
  sameHose,
  type Standing,
  throughY,
} from '@/core/for-work/predict';
import type { WorkQuestion } from '@/core/for-work/question';
import { loadChanges } from '../repositories/changes';
import { loadRegister } from '../repositories/dusts';
import { loadAway } from '../repositories/plans';
import { loadTests } from '../repositories/tests';
import { airPathOfBench } from './air-path';
import type { Context } from './user-action';
import { loadYard, type Yard } from './yard';

/** Flow and velocity of one bore over the lengths that are drawn. */
export interface HoseCurve {
  readonly boreM: number;
  readonly points: readonly Predicted[];
}

export interface WorkAnswer {
  readonly yard: Yard;
  readonly question: WorkQuestion;
  readonly demand: Demand;
  /** The best first; those that may not, last. */
  readonly verdicts: readonly MachineVerdict[];
  /** The machine whose hoses are looked at: the one asked for, else the best; null where there is none. */
  readonly chosen: MachineVerdict | null;
  /** Every bore that is sold, over the length, on that machine. */
  readonly curves: readonly HoseCurve[];
  readonly limits: HoseLimits;
  readonly circuit: CircuitAnswer | null;
  /** Tags of the machines that own each size of hose. */
  readonly ownersOf: (hose: Hose) => readonly string[];
}

export interface WorkAsking {
  readonly question: WorkQuestion;
  readonly figures: WorkFigures;
  /** Tag of the machine whose hoses are looked at; '' for the best. */
  readonly tag: string;
}

/** In a large yard the air of so many is worked out: those that fit best. A modelling choice. */
const MOST_MODELLED = 60;
/** Lengths that are drawn, m. */
const LENGTHS_M = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15] as const;
/** Three metres of hose where a machine's record has no length. */
const USUAL_LENGTH_M = 3;

type Modelled = (status: MachineStatus) => Promise<Standing>;

/** The machine as it stands today, at the voltage that reaches it. */
const standingOf =
  (context: Context, yard: Yard, machineV: number | null): Modelled =>
  async (status) => {
    const { id, nominalVolts } = status.machine;
    const { modelled, view } = airPathOfBench({
      yard,
      status,
      tests: await loadTests(context.db, id),
      changes: await loadChanges(context.db, yard.site.timeZone, id),
    });
    // Never more than the plate: a good supply makes no better machine.
    const ratio = machineV === null ? 1 : Math.min(1, Math.sqrt(machineV / nominalVolts));
    const state = view.today.state;
    return {
      model: modelled.model,
      parameters: modelled.parameters,
      basis: modelled.basis,
      state: { ...state, drive: { ...state.drive, speedRatio: state.drive.speedRatio * ratio } },
    };
  };

const ownHose = ({ machine }: MachineStatus): Hose | null =>
  machine.hoseBoreM === null ? null : { boreM: machine.hoseBoreM, lengthM: machine.hoseLengthM ?? USUAL_LENGTH_M };

/** Every hose of a vacuum in the yard. A collector keeps to its duct. */
const hosesOf = (yard: Yard): readonly Hose[] =>
  distinctHoses(yard.machines.flatMap((s) => (isCollector(s.machine.kind) ? [] : (ownHose(s) ?? []))));

const ownersIn =
  (yard: Yard) =>
  (hose: Hose): readonly string[] =>
    yard.machines.flatMap((s) => {
      const own = ownHose(s);
      return own && sameHose(own, hose) ? [s.machine.tag] : [];
    });

const limitsFor = (demand: Demand, status: MachineStatus | null): HoseLimits => ({
  mustM3s: demand.mustM3s,
  hoseMs: status && isCollector(status.machine.kind) ? demand.ductMs.lowMs : demand.hoseMs,
});

/** A machine as it stands for work, before its air is asked. */
export const candidateOf = (
  yard: Yard,
  away: Awaited<ReturnType<typeof loadAway>>,
  status: MachineStatus,
): Candidate => {
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
    drying: job !== undefined && job.driesUntil !== null && doNotRun(job),
    away: gone !== undefined && gone.from <= yard.today && yard.today <= gone.to,
    caseOpen: yard.openCases.has(machine.id),
    moreThanBaseline: latest?.baseline.outcome === 'more',
    changedSince: status.need.kind === 'measureAgain' && status.need.because === 'changed',
    hoses: [],
  };
};

interface Tried {
  readonly hoses: readonly Hose[];
  readonly own: Hose | null;
  readonly limits: HoseLimits;
}

const linesOf = (standing: Standing, { hoses, own, limits }: Tried): readonly HoseLine[] =>
  rankHoses(
    hoses.flatMap((h) => predictThrough(standing, h) ?? []),
    limits,
    own,
  );

const circuitOf = ({ figures, question }: WorkAsking, yard: Yard): CircuitAnswer | null => {
  const { supply, breaker, machineA, toolA, socket, lead, section, generator } = figures;
  if ([supply, breaker, machineA, toolA, lead, generator, socket].every((f) => f === null)) return null;
  const plate = (amps: number | null) => ({ amps, watts: null, powerFactor: null });
  return judgeCircuit({
    ruleSet: yard.site.ruleSet,
    supplyV: supply ?? (yard.site.ruleSet === 'us' ? 120 : 230),
    breakerA: breaker,
    machine: plate(machineA),
    tool: plate(toolA === null ? null : toolA * question.tools),
    socketW: socket,
    throughMachine: socket !== null,
    lead: lead === null || section === null ? null : { lengthM: lead, sectionMm2: section },
    hours: question.hours,
    generatorVA: generator,
  });
};

/** Which machine, on which hose, for a work: every machine of the yard as it stands today. */
export const answerWork = async (context: Context, asking: WorkAsking): Promise<WorkAnswer> => {
  const yard = await loadYard(context);
  const { question, tag } = asking;
  const demand = demandOf(question, assessDust(await loadRegister(context.db), question.dust));
  const circuit = circuitOf(asking, yard);
  const away = await loadAway(context.db);
  const modelled = standingOf(context, yard, circuit?.machineV ?? null);
  const hoses = hosesOf(yard);
  const asked = { question, demand };
  const ready = async (status: MachineStatus): Promise<Standing> => {
    const standing = await modelled(status);
    return question.tools === 2 ? throughY(standing) : oneBranch(standing);
  };
  const bare = rankMachines(
    yard.machines.map((status) => judgeMachine(candidateOf(yard, away, status), asked)),
    demand,
  );
  const verdicts: MachineVerdict[] = [];
  let modelledOnes = 0;
  for (const verdict of bare) {
    const status = yard.machines.find((s) => s.machine.id === verdict.candidate.machine.id);
    // The model is asked only of those that nothing else keeps from it.
    if (!status || verdict.whyNot.length > 0 || question.tool === null || modelledOnes >= MOST_MODELLED) {
      verdicts.push(verdict);
      continue;
    }
    modelledOnes += 1;
    const own = ownHose(status);
    const tried = isCollector(status.machine.kind)
      ? own
        ? [own]
        : []
      : distinctHoses([...(own ? [own] : []), ...hoses]);
    const lines = linesOf(await ready(status), { hoses: tried, own, limits: limitsFor(demand, status) });
    verdicts.push(judgeMachine({ ...verdict.candidate, hoses: lines }, asked));
  }
  const ranked = rankMachines(verdicts, demand);
  const chosen =
    ranked.find((v) => v.candidate.machine.tag.toUpperCase() === tag.toUpperCase()) ??
    ranked.find((v) => v.whyNot.length === 0) ??
    null;
  const status = chosen && (yard.machines.find((s) => s.machine.id === chosen.candidate.machine.id) ?? null);
  const limits = limitsFor(demand, status);
  const drawn = status && question.tool !== null && !isCollector(status.machine.kind) ? await ready(status) : null;
  const curves = drawn
    ? SOLD_BORES_M.map((boreM) => ({
        boreM,
        points: LENGTHS_M.flatMap((lengthM) => predictThrough(drawn, { boreM, lengthM }) ?? []),
      }))
    : [];
  return { yard, question, demand, verdicts: ranked, chosen, curves, limits, circuit, ownersOf: ownersIn(yard) };
};
