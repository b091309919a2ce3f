// npm run bench:find: made-up machines with hidden faults, walked by the engine's advice and by the three fixed schools.
// Tuning is done on seeds below FIRST; the figures are of seeds that were not looked at.
import { spawn } from 'node:child_process';
import { cpus } from 'node:os';
import { evaluateCase } from '@/core/diagnose/evaluate-case';
import { warm } from '@/core/diagnose/prediction-cache';
import { faultPlaces } from '@/core/diagnose/fault';
import { hypothesesOf } from '@/core/diagnose/hypotheses';
import { OPERATION_FACTS, type TestState } from '@/core/diagnose/operation';
import { type Evidence, openCase } from '@/core/diagnose/posterior';
import { faultSimulatorOf, UNTOUCHED } from '@/core/diagnose/signature';
import { templateParameters } from '@/core/path/pressure-profile';
import { stageTemplate } from '@/core/machine/stage-templates';
import { type CaseOutcome, outcomeOf, type Summary, summaryOf, type World, WORLDS } from '../tests/bench/find/outcome';
import { expectedOf } from '@/core/diagnose/expected';
import { CLEAN_STATE, modelOf, stageOf, templateMachine } from '../tests/support/machines';
import { type Figure, report } from './bench-report';

const FIRST = 5001;
const CASES = 605;

const span = (from: number, to: number): readonly number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

/** A child walks its share of the seeds and writes one line a case. */
const walkSpan = (world: World, from: number, to: number): void => {
  for (const seed of span(from, to)) process.stdout.write(`${JSON.stringify(outcomeOf(world, seed))}\n`);
};

const child = (world: World, from: number, to: number): Promise<readonly CaseOutcome[]> =>
  new Promise((resolve, reject) => {
    const run = spawn(process.execPath, ['--import', 'tsx', 'scripts/bench-find.ts', world, String(from), String(to)], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let text = '';
    run.stdout.on('data', (chunk: Buffer) => {
      text += chunk.toString();
    });
    run.on('exit', (code) =>
      code === 0
        ? resolve(
            text
              .trim()
              .split('\n')
              .map((line) => JSON.parse(line) as CaseOutcome),
          )
        : reject(new Error(`a share of the bench ended with ${String(code)}`)),
    );
  });

/** Ten stages: the pneumatic machine with a muffler before its exhaust. */
const tenStages = () => {
  const machine = templateMachine('pneumaticHepa');
  const stages = [
    ...machine.stages.slice(0, -1),
    stageOf(90, { position: 8, kind: 'muffler', name: 'muffler', spec: stageTemplate('muffler', 'pneumaticHepa') }),
    ...machine.stages.slice(-1),
  ];
  return modelOf({ ...machine, stages });
};

interface Latency {
  readonly openMs: number;
  readonly stepsMs: readonly number[];
}

/** One case on ten stages with pairs, asked step by step; nothing else runs. Ahead: the proposed test was worked out while it was done, as the worker does. */
const oneLatency = ([severity, position]: readonly [number, number], ahead: boolean): Latency => {
  const model = tenStages();
  const faultSimulator = faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE });
  const traits = { hasLamp: false, hasBrush: false, selectorM: null, machineClass: 'HEPA' as const };
  const subject = {
    faultSimulator,
    traits,
    hoseM: model.hoseBoreM,
    nominalVolts: 230,
    calibrated: true,
    baselines: {},
  };
  const began = performance.now();
  const c = openCase(subject, hypothesesOf(faultPlaces(model, traits)));
  let evidence: readonly Evidence[] = [];
  let state: TestState = 'off';
  const stepsMs: number[] = [];
  let openMs = 0;
  for (let i = 0; i < 8; i += 1) {
    const asked = performance.now();
    const said = evaluateCase(c, {
      complaint: 'noSuction',
      hazard: 'controlled',
      state,
      interventions: UNTOUCHED,
      evidence,
      skipped: [],
    });
    if (i === 0) openMs = performance.now() - began;
    else stepsMs.push(performance.now() - asked);
    if (!said.ok || said.value.advice.kind !== 'test') break;
    const { operation } = said.value.advice.proposal;
    const e = expectedOf(operation, [{ kind: 'blocked', position, severity }], { interventions: UNTOUCHED, subject });
    const outcome =
      e.kind === 'number'
        ? ({ kind: 'number', valueSi: e.mean } as const)
        : ({ kind: 'word', word: Object.entries(e.words).sort((a, b) => b[1] - a[1])[0]?.[0] ?? '' } as const);
    evidence = [...evidence, { operation, outcome, interventions: UNTOUCHED, struck: false }];
    state = OPERATION_FACTS[operation.kind].state;
    if (ahead) warm(c, operation, UNTOUCHED);
  }
  return { openMs, stepsMs };
};

const quantile = (list: readonly number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))] ?? Number.NaN;

interface Latencies {
  readonly median: number;
  readonly most: number;
  readonly mostCold: number;
  readonly open: number;
}

const latencies = (): Latencies => {
  const cases = [0, 1, 4, 5, 6, 3].map((position, i) => [0.3 + 0.07 * i, position] as const);
  oneLatency([0.5, 4], true);
  const steps = (ahead: boolean) => cases.map((x) => oneLatency(x, ahead));
  const [cold, warmed] = [steps(false), steps(true)];
  const msOf = (runs: readonly Latency[]) => runs.flatMap((r) => r.stepsMs);
  return {
    median: quantile(msOf(warmed), 0.5),
    most: quantile(msOf(warmed), 0.95),
    mostCold: quantile(msOf(cold), 0.95),
    open: quantile(
      cold.map((r) => r.openMs),
      0.5,
    ),
  };
};

type Line = readonly [id: string, value: number, unit: string, goal: string];

const SHOWN = 'shown, no goal';

/** The figures of one world; those of the other yard are the ones that count. */
const linesOf = (s: Summary, world: World): readonly Line[] => {
  const schools = Object.values(s.schools);
  const goal = (text: string) => (world === 'yard' ? text : SHOWN);
  const lines: readonly Line[] = [
    ['cases', s.cases, 'cases', 'at least 600'],
    ['first', s.first, '1', 'at least 0.90'],
    ['stage', s.stage, '1', 'at least 0.95'],
    ['top3_all', s.topThree, '1', 'at least 0.90'],
    ['pairs_both', s.pairsBoth, '1', 'at least 0.85'],
    ['wrong_felt', s.wrongFelt, '1', 'at most 0.01'],
    ['wrong_root', s.wrongRoot, '1', 'at most 0.01'],
    ['wrong_silent', s.wrongSilent, '1', 'at most 0.04'],
    [
      'over_ratio',
      s.overRatio,
      '1',
      'at most 0.60: beyond what the case needed, an hour for a wrong closing, against the best school',
    ],
    ['done_ratio', s.doneRatio, '1', 'at most 0.70: the same with the repairs that were needed'],
    ['priced_ratio', s.pricedRatio, '1', 'at most 0.80: minutes, exposure and needless parts, against the best school'],
    ['ece', s.repairCalibration, '1', 'at most 0.05: at the first repair'],
    ['ece_steps', s.calibration, '1', 'over all steps; shown, no goal'],
    ['escalated', s.escalated, '1', SHOWN],
    ['tests', s.tests, 'tests a case', SHOWN],
    ['price', s.price, 'min a case', SHOWN],
    ['price_best_school', Math.min(...schools.map((x) => x.price)), 'min a case', SHOWN],
    ['over_best_school', Math.min(...schools.map((x) => x.over)), 'min a case', SHOWN],
    ['done_best_school', Math.min(...schools.map((x) => x.done)), 'min a case', SHOWN],
  ];
  return lines.map(([id, value, unit, text]) => [id, value, unit, goal(text)]);
};

const latencyLines = (ms: Latencies): readonly Line[] => [
  [
    'latency_ms',
    ms.median,
    'ms',
    'under 150: posterior and next test on ten stages with pairs, median of the steps of six cases',
  ],
  ['latency_p95_ms', ms.most, 'ms', 'shown, no goal: the slowest of twenty steps'],
  [
    'latency_cold_p95_ms',
    ms.mostCold,
    'ms',
    'shown, no goal: the same when the proposed test was not worked out while it was done',
  ],
  ['open_ms', ms.open, 'ms', 'shown, no goal: opening the case and its first test'],
];

const figure =
  (prefix: string) =>
  ([id, value, unit, goal]: Line): Figure => ({ id: `${prefix}.${id}`, value, unit, goal });

const round = (value: number): number => Number(value.toPrecision(3));

const rowOf = (s: Summary): Readonly<Record<string, number>> => ({
  cases: s.cases,
  first: round(s.first),
  stage: round(s.stage),
  top3_all: round(s.topThree),
  wrong_felt: round(s.wrongFelt),
  wrong_root: round(s.wrongRoot),
  wrong_silent: round(s.wrongSilent),
  price: round(s.price),
  over: round(s.over),
  done: round(s.done),
  take_out: round(s.schools.takeOut.done),
  swap: round(s.schools.swap.done),
  nozzle_inward: round(s.schools.nozzleInward.done),
});

const tableBy = (
  list: readonly CaseOutcome[],
  key: (o: CaseOutcome) => string,
): Readonly<Record<string, Readonly<Record<string, number>>>> =>
  Object.fromEntries(
    [...new Set(list.map(key))].sort().map((k) => [k, rowOf(summaryOf(list.filter((o) => key(o) === k)))]),
  );

const walked = async (world: World): Promise<readonly CaseOutcome[]> => {
  const cores = Math.max(1, Math.min(cpus().length, 4));
  const shares = Array.from(
    { length: cores },
    (_, i) => [FIRST + Math.floor((i * CASES) / cores), FIRST + Math.floor(((i + 1) * CASES) / cores) - 1] as const,
  );
  return (await Promise.all(shares.map(([from, to]) => child(world, from, to)))).flat();
};

const tablesOf = (list: readonly CaseOutcome[]) => ({
  kind: tableBy(list, (o) => o.kind),
  faults: tableBy(list, (o) => o.group),
  level: tableBy(list, (o) => o.level),
});

const main = async (): Promise<void> => {
  const ms = latencies();
  const [yard, first] = [await walked('yard'), await walked('first')];
  const tables = { ...tablesOf(yard), firstWorld: tablesOf(first).kind };
  for (const table of Object.values(tables)) console.table(table);
  const least = Math.min(...Object.values(tables.kind).map((row) => row['first'] ?? 0));
  const worst: Line = ['worst_kind_first', least, '1', 'at least 0.85: of the kinds of machine'];
  const figures = [
    ...[...linesOf(summaryOf(yard), 'yard'), worst, ...latencyLines(ms)].map(figure('find')),
    ...linesOf(summaryOf(first), 'first').map(figure('find.first_world')),
  ];
  report({ name: 'find', seed: FIRST, figures, tables });
};

const [world, from, to] = process.argv.slice(2);
if (world !== undefined && world in WORLDS) walkSpan(world as World, Number(from), Number(to));
else await main();
