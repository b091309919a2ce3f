// The air-path solver: its speed, and a general hydraulic network solver beside it in the same run.
import { InitHydOption, LinkProperty, Project, Workspace } from 'epanet-js';
import { TEN_STAGES, TWINS } from '../tests/support/twin-paths';
import { twinNetwork } from '../tests/support/epanet-network';
import { templateMachine, modelOf, CLEAN_STATE } from '../tests/support/machines';
import { answerAirPath } from '@/workers/answer-air-path';
import { AirPathRequest, AirPathReply } from '@/contracts/air-path-messages';
import type { Element } from '@/core/path/model/element';
import { type AirPath, AS_BUILT, withElements } from '@/core/path/model/path';
import { readyPath, solvePath, solveReady } from '@/core/path/model/solve';
import { templateParameters } from '@/core/path/pressure-profile';
import { callsPerSecond, report } from './bench-report';

const flowOf = (path: AirPath): number => {
  const point = solvePath(path);
  if (!point.ok) throw new Error(point.failures.map((f) => f.code).join());
  return point.value.toolFlowM3s;
};

/** A hundred states of the ten-stage path: its bag ever fuller. Each is described, checked and solved from nothing. */
const states = Array.from({ length: 100 }, (_, i) =>
  withElements(
    TEN_STAGES,
    new Map<number, Element>([[3, { kind: 'medium', k1PaSM: 500 + 40 * i, k2PaSMKg: 0, areaM2: 0.25, dustKg: 0 }]]),
  ),
);
let turn = 0;
const solvesPerS = callsPerSecond(() => flowOf(states[(turn += 1) % states.length] ?? TEN_STAGES));

const workspace = new Workspace();
await workspace.loadModule();

/** The same network from its description to its tool flow, as one call of the other solver. */
const theirFlow = (inp: string, links: readonly string[]): number => {
  workspace.writeFile('net.inp', inp);
  const project = new Project(workspace);
  project.open('net.inp', 'report.rpt', 'out.bin');
  project.openH();
  project.initH(InitHydOption.InitFlow);
  project.runH();
  const flow =
    links.reduce((sum, id) => sum + project.getLinkValue(project.getLinkIndex(id), LinkProperty.Flow), 0) / 1000;
  project.closeH();
  project.close();
  return flow;
};

const MS = 400;
const rows = Object.entries(TWINS).map(([name, path]) => {
  const { inp, toolLinks } = twinNetwork(path);
  const [ours, theirs] = [flowOf(path), theirFlow(inp, toolLinks)];
  const project = new Project(workspace);
  workspace.writeFile('held.inp', inp);
  project.open('held.inp', 'held.rpt', 'held.bin');
  project.openH();
  const held = callsPerSecond(() => {
    project.initH(InitHydOption.InitFlow);
    project.runH();
  }, MS);
  project.closeH();
  project.close();
  const ready = readyPath(path);
  if (!ready.ok) throw new Error(name);
  return {
    network: name,
    difference: Math.abs(ours / theirs - 1),
    ourPerS: callsPerSecond(() => flowOf(path), MS),
    theirPerS: callsPerSecond(() => theirFlow(inp, toolLinks), MS),
    ourHeldPerS: callsPerSecond(() => solveReady(ready.value, AS_BUILT), MS),
    theirHeldPerS: held,
  };
});
console.table(
  rows.map((r) => ({
    ...r,
    difference: `${(100 * r.difference).toFixed(4)} %`,
    ourPerS: Math.round(r.ourPerS),
    theirPerS: Math.round(r.theirPerS),
    ourHeldPerS: Math.round(r.ourHeldPerS),
    theirHeldPerS: Math.round(r.theirHeldPerS),
  })),
);

/** Seconds for one solution of each network: the networks count alike, of any size. */
const seconds = (of: (r: (typeof rows)[number]) => number) => rows.reduce((sum, r) => sum + 1 / of(r), 0);

const model = modelOf(templateMachine('hepaTank'));
const held = {
  ask: 'model' as const,
  model: { ...model, stages: [...model.stages] },
  parameters: templateParameters(model, 12e-6),
};
const question = { ask: 'solve' as const, id: 1, state: { ...CLEAN_STATE, stages: {}, leaksM2: {} } };
/** One what-if as the worker does it: the message parsed, the path built and solved, the answer parsed. */
const whatIfPerS = callsPerSecond(() => {
  const request = AirPathRequest.parse(question);
  if (request.ask === 'solve') AirPathReply.parse(answerAirPath(held, request));
});

report({
  name: 'path',
  seed: 0,
  figures: [
    {
      id: 'path.solves_per_s',
      value: solvesPerS,
      unit: '1/s',
      goal: 'at least 50 000: ten stages with leaks, described, checked and solved from nothing',
    },
    {
      id: 'path.ratio_epanet',
      value: seconds((r) => r.theirPerS) / seconds((r) => r.ourPerS),
      unit: '1',
      goal: 'at least 50: the same networks from description to flow on both sides, one solution of each',
    },
    {
      id: 'path.ratio_epanet_held',
      value: seconds((r) => r.theirHeldPerS) / seconds((r) => r.ourHeldPerS),
      unit: '1',
      goal: 'shown, no goal: networks held open and solved again from reset flows',
    },
    {
      id: 'path.max_rel_diff_epanet',
      value: Math.max(...rows.map((r) => r.difference)),
      unit: '1',
      goal: `at most 0.005, on ${rows.length} networks`,
    },
    { id: 'path.what_if_per_s', value: whatIfPerS, unit: '1/s', goal: 'at least 600: ten for each frame of a screen' },
  ],
});
