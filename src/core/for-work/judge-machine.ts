import { MACHINE_KINDS } from '../machine/kinds';
import { holdsFume, is, isGasFume, mixes, sparksInto } from './clashes';
import { TOOLS } from './tools';
import type { DustHazard } from '../dust/level';
import { DUST_HAZARDS } from '../dust/level';
import type { NeededClass } from '../dust/dust';
import type { StageLasting } from '../forecast/lasting';
import type { StageDue } from '../interval/due';
import { dueWord } from '../interval/due-word';
import type { BondingStanding } from './bonding';
import { classStanding, type Machine, type MachineClass } from '../machine/machine';
import type { Demand } from './demand';
import { type HoseLine, worstVerdict } from './hose-choice';
import type { WorkQuestion } from './question';

export const WHY_NOT = [
  'dustRefused',
  'machineRefused',
  'somebodyAtIt',
  'away',
  'drying',
  'classWithdrawn',
  'classTooLow',
  'classNone',
  'collector',
  'moreFlow',
  'floorOnly',
  'fumeOnly',
  'noGas',
  'sparks',
  'conductive',
  'mixes',
  'handTool',
  'waterOnly',
  'notWet',
  'hoseTooSlow',
  'tooLittleAir',
] as const;
/** Reasons why a machine must not take a work. */
export type WhyNot = (typeof WHY_NOT)[number];

export const FIRST = [
  'questions',
  'keepsWorse',
  'returnsAir',
  'case',
  'measure',
  'due',
  'full',
  'mayFill',
  'bonding',
  'flowUnsure',
  'selector',
  'wetSetOut',
  'examine',
  'hepaNotClassed',
  'belowUsual',
  'noAir',
] as const;
/** Things to do or check before the work starts. */
export type First = (typeof FIRST)[number];

export const AFTERWARDS = ['dirties'] as const;
/** `dirties`: opened as a worse machine from then on. */
export type Afterwards = (typeof AFTERWARDS)[number];

export interface Candidate {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  /** Days since its last usable test; null where it was never measured. */
  readonly testedDaysAgo: number | null;
  readonly somebodyAtIt: boolean;
  readonly away: boolean;
  readonly drying: boolean;
  readonly caseOpen: boolean;
  /** Its newest test gave more air than its baseline: a filter may be torn, out of its seat or missing. */
  readonly moreThanBaseline: boolean;
  /** Something was changed in it since that test. */
  readonly changedSince: boolean;
  /** How long its bag and filters last in use; empty where that was not worked out. */
  readonly lasting: readonly StageLasting[];
  readonly bonding: BondingStanding;
  /** The air it would give through each available hose, the best first; empty where it takes none or has no answer. */
  readonly hoses: readonly HoseLine[];
}

export interface MachineVerdict {
  readonly candidate: Candidate;
  readonly whyNot: readonly WhyNot[];
  readonly first: readonly First[];
  readonly afterwards: readonly Afterwards[];
  /** The hose it would take; null where none was judged. */
  readonly hose: HoseLine | null;
}

/** A test older than this says little of today. A Moorwind default. */
const OLD_TEST_DAYS = 180;
/** A working day, to reckon hours of a job as days. A Moorwind default. */
const HOURS_A_DAY = 8;
/** Below this chance of lasting the job a bag or filter is changed first; below the second a spare is at hand. Moorwind defaults. */
const CHANGE_FIRST = 0.5;
const SPARE_AT_HAND = 0.9;
const SAME_SIZE = 0.04;

const RANK: Readonly<Record<MachineClass, number>> = { L: 1, HEPA: 1, M: 2, H: 3 };

export type ClassFit = 'yes' | 'note' | 'no';

const euFit = (label: MachineClass, need: NeededClass): ClassFit => {
  if (label === 'HEPA' && need === 'M') return 'note';
  return RANK[label] >= (need === 'HEPA' ? RANK.H : RANK[need]) ? 'yes' : 'no';
};

const usFit = (label: MachineClass, need: NeededClass): ClassFit => {
  if (need === 'L') return 'yes';
  if (need === 'M') return label === 'L' ? 'no' : 'yes';
  return label === 'HEPA' || label === 'H' ? 'yes' : 'no';
};

/**
 * Whether the class that may be claimed today is enough by both rule sets: where they differ the stricter applies. HEPA in
 * US usage is no class of EN 60335-2-69: where M is asked for it is a question for the person responsible for the site
 * (`note`), where H is it is not enough (0.03 % against 0.005 %). Source: EN 60335-2-69 Annex AA; 29 CFR 1926.1153.
 */
export const classFit = (label: MachineClass | null, { standing, classes }: Demand): ClassFit => {
  if (label === null) return standing.level === 'plain' && classes.eu_uk === 'L' && classes.us === 'L' ? 'yes' : 'no';
  const [eu, us] = [euFit(label, classes.eu_uk), usFit(label, classes.us)];
  return eu === 'no' || us === 'no' ? 'no' : eu === 'note' ? 'note' : 'yes';
};

/**
 * True for dust that a collector may take. A collector carries no dust class: it takes wood, the dust it is built for, and
 * dust that asks for no more than L.
 */
const collectorMay = ({ standing }: Demand): boolean =>
  standing.level !== 'contained' &&
  standing.dusts.length > 0 &&
  standing.dusts.every(
    (d) => d.family === 'wood' || (d.level === 'plain' && d.neededClass.eu_uk === 'L' && d.neededClass.us === 'L'),
  );

const rank = (level: DustHazard): number => DUST_HAZARDS.indexOf(level);

const whyNotOf = (c: Candidate, q: WorkQuestion, demand: Demand): readonly WhyNot[] => {
  const { machine, hoses } = c;
  const { label, gap } = classStanding(machine);
  const { collector: fixed, feed, use } = MACHINE_KINDS[machine.kind];
  const { dusts } = demand.standing;
  const onlyFume = dusts.length > 0 && dusts.every(isGasFume) && demand.standing.level !== 'contained';
  const best = hoses[0] ? worstVerdict(hoses[0]) : null;
  // A stage that is missing, foreign or unproven keeps a collector from work too, which has no class to lose.
  const classed: readonly WhyNot[] = gap
    ? ['classWithdrawn']
    : fixed
      ? collectorMay(demand)
        ? []
        : ['collector']
      : onlyFume
        ? holdsFume(machine)
          ? []
          : ['noGas']
        : classFit(label, demand) !== 'no'
          ? []
          : [label === null ? 'classNone' : 'classTooLow'];
  return [
    ...(demand.standing.refusal ? (['dustRefused'] as const) : []),
    ...(machine.dust.standing.refusal ? (['machineRefused'] as const) : []),
    ...(c.somebodyAtIt ? (['somebodyAtIt'] as const) : []),
    ...(c.away ? (['away'] as const) : []),
    ...(c.drying ? (['drying'] as const) : []),
    ...classed,
    ...(c.moreThanBaseline ? (['moreFlow'] as const) : []),
    ...(use === 'floors' && q.tool !== null && q.tool !== 'cleaningWand' ? (['floorOnly'] as const) : []),
    ...(use === 'fume' && !dusts.some((d) => d.family === 'fume') ? (['fumeOnly'] as const) : []),
    ...(sparksInto(machine, demand) ? (['sparks'] as const) : []),
    ...(dusts.some(is('conductive')) && feed !== 'air' ? (['conductive'] as const) : []),
    ...(mixes(machine, demand) ? (['mixes'] as const) : []),
    ...(fixed && q.tool !== null && TOOLS[q.tool].handHeld ? (['handTool'] as const) : []),
    ...(demand.waterOnly ? (['waterOnly'] as const) : []),
    ...(demand.wet && !machine.wetSet ? (['notWet'] as const) : []),
    ...(best === 'tooSlow' ? (['hoseTooSlow'] as const) : []),
    ...(best === 'tooLittle' || best === 'neither' ? (['tooLittleAir'] as const) : []),
  ];
};

/** The least chance of a bag or filter to last the job: 1 where none is known. */
const leastLasting = ({ lasting }: Candidate): number => Math.min(1, ...lasting.map((l) => l.lasts ?? 1));

const lastsFor = (c: Candidate): readonly First[] => {
  const chance = leastLasting(c);
  return chance < CHANGE_FIRST ? ['full'] : chance < SPARE_AT_HAND ? ['mayFill'] : [];
};

const firstOf = (c: Candidate, q: WorkQuestion, demand: Demand): readonly First[] => {
  const { machine, hoses, due } = c;
  const days = q.hours === null ? 0 : Math.floor(q.hours / HOURS_A_DAY);
  const [best] = hoses;
  const examined = due.find((d) => d.binding.rule.kind === 'examination');
  const selector = machine.hoseSelectorM;
  return [
    ...(demand.standing.questions.length + demand.standing.toConfirm.length > 0 ? (['questions'] as const) : []),
    ...(rank(machine.hazard) > rank(demand.standing.level) ? (['keepsWorse'] as const) : []),
    ...(MACHINE_KINDS[machine.kind].collector && demand.classes.eu_uk !== 'L' ? (['returnsAir'] as const) : []),
    ...(c.caseOpen ? (['case'] as const) : []),
    ...(c.changedSince || c.testedDaysAgo === null || c.testedDaysAgo > OLD_TEST_DAYS ? (['measure'] as const) : []),
    ...(due.some((d) => d !== examined && d.daysLeft !== null && d.daysLeft <= days) ? (['due'] as const) : []),
    ...lastsFor(c),
    ...(c.bonding.kind === 'open' ? (['bonding'] as const) : []),
    ...(examined && dueWord(examined.daysLeft) === 'overdue' ? (['examine'] as const) : []),
    // A machine without a computed flow is not said to get its air.
    ...(q.tool !== null && !best ? (['noAir'] as const) : []),
    ...(best && worstVerdict(best) === 'perhaps' ? (['flowUnsure'] as const) : []),
    ...(best && demand.usualM3s !== null && best.predicted.flowM3s < demand.usualM3s ? (['belowUsual'] as const) : []),
    ...(best && selector !== null && Math.abs(best.predicted.hose.boreM / selector - 1) > SAME_SIZE
      ? (['selector'] as const)
      : []),
    ...(!demand.wet && machine.wetSet ? (['wetSetOut'] as const) : []),
    ...(!MACHINE_KINDS[machine.kind].collector && classFit(classStanding(machine).label, demand) === 'note'
      ? (['hepaNotClassed'] as const)
      : []),
  ];
};

const afterwardsOf = ({ machine }: Candidate, demand: Demand): readonly Afterwards[] => {
  return rank(machine.hazard) < rank(demand.standing.level) ? ['dirties'] : [];
};

/** One machine against one work. Source: common practice, no published source; classes by EN 60335-2-69 and 29 CFR 1926.1153. */
export const judgeMachine = (
  candidate: Candidate,
  { question, demand }: { readonly question: WorkQuestion; readonly demand: Demand },
): MachineVerdict => ({
  candidate,
  whyNot: whyNotOf(candidate, question, demand),
  first: firstOf(candidate, question, demand),
  afterwards: afterwardsOf(candidate, demand),
  hose: candidate.hoses[0] ?? null,
});

/** Weight of a thing to do first or to accept afterwards, when machines are compared. A Moorwind default. */
const WEIGHT: Readonly<Record<First | Afterwards, number>> = {
  questions: 3,
  case: 3,
  hepaNotClassed: 3,
  measure: 2,
  flowUnsure: 2,
  wetSetOut: 2,
  examine: 2,
  due: 1,
  full: 1,
  mayFill: 0.5,
  bonding: 3,
  belowUsual: 1,
  noAir: 3,
  selector: 0.5,
  keepsWorse: 4,
  returnsAir: 0.5,
  dirties: 4,
};

/** Share of the demand that a machine's best hose gives; 1 and more is enough. */
const shareGiven = (hose: HoseLine | null, { mustM3s, hoseMs }: Pick<Demand, 'mustM3s' | 'hoseMs'>): number =>
  hose === null
    ? 0
    : Math.min(
        mustM3s === null ? 1 : hose.predicted.flowM3s / mustM3s,
        hoseMs === null ? 1 : hose.predicted.velocityMs / hoseMs,
      );

/**
 * The best first: machines that may do the work, by the weight of their conditions, then by the air they give. The
 * others follow, the fewest reasons first, then the one nearest to the air. Choice: a Moorwind default.
 */
export const rankMachines = (
  verdicts: readonly MachineVerdict[],
  demand: Pick<Demand, 'mustM3s' | 'hoseMs'>,
): readonly MachineVerdict[] => {
  const key = (v: MachineVerdict): readonly number[] => [
    v.whyNot.length,
    v.whyNot.length > 0 ? -shareGiven(v.hose, demand) : 0,
    [...v.first, ...v.afterwards].reduce((sum, x) => sum + WEIGHT[x], 0),
    -(v.hose?.predicted.flowM3s ?? 0),
  ];
  return [...verdicts].sort((a, b) => {
    const [x, y] = [key(a), key(b)];
    const at = x.findIndex((n, i) => n !== y[i]);
    return at < 0 ? 0 : (x[at] ?? 0) - (y[at] ?? 0);
  });
};
