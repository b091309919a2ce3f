import { z } from 'zod';
import { AirflowTestInput } from '@/contracts/calc/airflow-test';
import { AirPathInput, CalibrateInput, HoseInput } from '@/contracts/calc/air-path';
import { DiagnoseInput } from '@/contracts/calc/diagnose';
import { CheckFindInput, DustInput, IntegrityInput } from '@/contracts/calc/dust';
import { CheckProcedureInput, ProcedureInput } from '@/contracts/calc/procedure';
import { DueInput, ForecastInput, PlanCalcInput, ReorderInput } from '@/contracts/calc/plan';
import { FilterTrainInput } from '@/contracts/calc/filter-train';
import { CircuitInput, ToolNeedInput, WorkInput } from '@/contracts/calc/work';
import { PaybackInput, RingInput, UpgradeInput } from '@/contracts/calc/upgrade';
import { CompareInput, ParticleTestInput, SuctionCurveInput, TraverseInput } from '@/contracts/calc/series';
import { fail, failure, type Result } from '@/core/failure/failure';
import { problemsOf } from '@/messages/failures';
import { failureOfIssue } from '@/contracts/issues';
import type { CliWorld } from '../run';
import { airflowTest } from './airflow-test';
import { airPath } from './air-path';
import { calibrate } from './calibrate';
import { compare } from './compare';
import { diagnose, nextTest } from './diagnose';
import { checkFind, dustCalc, integrityCalc } from './dust';
import { filterTrainCalc } from './filter-train';
import { hose } from './hose';
import { particleTest } from './particle-test';
import { dueCalc, forecastCalc, planCalc, reorderCalc } from './plan';
import { checkProcedure, procedureCalc } from './procedure';
import { suctionCurve } from './suction-curve';
import { traverse } from './traverse';
import { paybackCalc, ringCalc, upgradeCalc } from './upgrade';
import { circuit, toolNeed, work } from './work';

interface Calculation {
  readonly summary: string;
  readonly schema: z.ZodType;
  readonly run: (json: unknown) => Result<unknown>;
}

const calculation = <S extends z.ZodType>(
  summary: string,
  schema: S,
  run: (input: z.output<S>) => Result<unknown>,
): Calculation => ({
  summary,
  schema,
  run: (json) => {
    const parsed = schema.safeParse(json);
    return parsed.success
      ? run(parsed.data)
      : { ok: false, failures: parsed.error.issues.slice(0, 20).map(failureOfIssue) };
  },
});

const CALCULATIONS: Readonly<Record<string, Calculation>> = {
  'airflow-test': calculation(
    'repeats of one test in, flow or suction with its interval and verdicts out',
    AirflowTestInput,
    airflowTest,
  ),
  compare: calculation('two series in, difference, share, Welch interval and p out', CompareInput, compare),
  traverse: calculation(
    'a duct in, the points to take out; with readings also mean velocity and flow',
    TraverseInput,
    traverse,
  ),
  'suction-curve': calculation(
    'suction at several orifices in, the fitted curve and its peak air power out',
    SuctionCurveInput,
    suctionCurve,
  ),
  'particle-test': calculation(
    'counts in exhaust and room in, rates with exact limits and the verdict out',
    ParticleTestInput,
    particleTest,
  ),
  'air-path': calculation(
    'elements, leaks and fan in, the operating point and the pressure staircase out',
    AirPathInput,
    airPath,
  ),
  calibrate: calculation(
    'a kind of machine and its baseline readings in, fan, leak and path with intervals out',
    CalibrateInput,
    calibrate,
  ),
  'filter-train': calculation(
    'filters with ratings and seats in, penetration by size and the class at best out',
    FilterTrainInput,
    filterTrainCalc,
  ),
  hose: calculation(
    'a hose and a flow in, velocity, friction and pressure drop out; with a machine, its flow',
    HoseInput,
    hose,
  ),
  diagnose: calculation(
    'a machine and evidence in, faults with their probability and what to do next out',
    DiagnoseInput,
    diagnose,
  ),
  'next-test': calculation(
    'a machine and evidence in, the next test of a school and the best others out',
    DiagnoseInput,
    nextTest,
  ),
  due: calculation(
    'rules and what is on record of a stage in, when it is due and by which rule out',
    DueInput,
    dueCalc,
  ),
  forecast: calculation(
    'intervals, looks and use of a stage in, quantiles of when its limit is reached out',
    ForecastInput,
    forecastCalc,
  ),
  plan: calculation(
    'machines, tasks, minutes and parts in, the cheapest days with their reasons out',
    PlanCalcInput,
    planCalc,
  ),
  'tool-need': calculation(
    'a work in; class, air at the tool, velocity, equipment and what is forbidden out',
    ToolNeedInput,
    toolNeed,
  ),
  circuit: calculation(
    'plates, breaker and lead in; whether they fit one circuit and the voltage at the machine out',
    CircuitInput,
    circuit,
  ),
  work: calculation(
    'a work and machines of a kind in; which may, on which hose, with what air, and why not, out',
    WorkInput,
    work,
  ),
  upgrade: calculation(
    'a machine of a kind and changes to it in; flow, velocities and gain after each out',
    UpgradeInput,
    upgradeCalc,
  ),
  'adapter-ring': calculation(
    'canister, drum and board in; gap, rings, holes and how they come out of the board out',
    RingInput,
    ringCalc,
  ),
  payback: calculation(
    'what stages cost and how long they last in; when an upgrade pays, with its chance, out',
    PaybackInput,
    paybackCalc,
  ),
  reorder: calculation(
    'demand, lead time and shelf in, reorder point and packs to order out',
    ReorderInput,
    reorderCalc,
  ),
  procedure: calculation(
    'a machine, a hazard and a job in, the steps and why each is there out',
    ProcedureInput,
    procedureCalc,
  ),
  dust: calculation(
    'a text and a rule set in, what dust it is, how it is opened, what is refused and who does it out',
    DustInput,
    dustCalc,
  ),
  integrity: calculation(
    'counts behind a filter and in the challenge in, what may pass with its limits and the verdict out',
    IntegrityInput,
    integrityCalc,
  ),
  'check-find': calculation(
    'a machine and a level in, whether any order of finding runs it unfiltered out',
    CheckFindInput,
    checkFind,
  ),
  'check-procedure': calculation(
    'the same with steps left out in, what is then wrong with it out',
    CheckProcedureInput,
    checkProcedure,
  ),
};

const pretty = (value: unknown): string => JSON.stringify(value, null, 2);

const refuse = (world: CliWorld, failures: Parameters<typeof problemsOf>[0]): number => {
  world.complain(pretty({ problems: problemsOf(failures) }));
  return 1;
};

const isSound = (value: unknown): boolean => {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value === 'string') return !/\b(NaN|-?Infinity|undefined)\b/.test(value);
  return typeof value !== 'object' || value === null || Object.values(value).every(isSound);
};

/** Returns the answer of a calculation; a failure where its figures give no result. */
const sound = (found: Calculation, json: unknown): Result<unknown> => {
  try {
    const result = found.run(json);
    return result.ok && !isSound(result.value) ? fail(failure('calc.no-figure')) : result;
  } catch (error) {
    // A formula that is asked outside its valid range refuses.
    if (error instanceof RangeError) return fail(failure('calc.outside', '', { why: error.message }));
    throw error;
  }
};

/** The `calc` command: `--list`, `NAME --schema`, or `NAME` with JSON on the standard input. */
export const runCalc = async (world: CliWorld, args: readonly string[]): Promise<number> => {
  const [name = '--list', flag] = args;
  if (name === '--list') {
    world.write(
      Object.entries(CALCULATIONS)
        .map(([key, c]) => `${key.padEnd(16)}${c.summary}`)
        .join('\n'),
    );
    return 0;
  }
  const found = Object.hasOwn(CALCULATIONS, name) ? CALCULATIONS[name] : undefined;
  if (!found) return refuse(world, [failure('calc.unknown', '', { name: name.slice(0, 40) })]);
  if (flag === '--schema') {
    world.write(pretty(z.toJSONSchema(found.schema, { io: 'input' })));
    return 0;
  }
  let json: unknown;
  try {
    json = JSON.parse(await world.readInput());
  } catch {
    return refuse(world, [failure('request.malformed')]);
  }
  const result = sound(found, json);
  if (!result.ok) return refuse(world, result.failures);
  world.write(pretty(result.value));
  return 0;
};
