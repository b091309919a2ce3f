import type {
  CircuitInput,
  CircuitOutput,
  ToolNeedInput,
  ToolNeedOutput,
  WorkInput,
  WorkOutput,
} from '@/contracts/calc/work';
import { AS_NEW } from '@/core/path/as-new';
import { modelledMachine } from '@/core/calibrate/machine-model';
import { assessDust, stated } from '@/core/dust/assess';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import type { QuantityInput } from '@/contracts/calc/quantity';
import type { QuantityKind } from '@/core/units';
import { judgeCircuit, type Load } from '@/core/for-work/circuit';
import { type Demand, demandOf } from '@/core/for-work/demand';
import { type Pair, rankHoses } from '@/core/for-work/hose-choice';
import { judgeMachine, type MachineVerdict, rankMachines } from '@/core/for-work/judge-machine';
import { type Hose, oneBranch, predictThrough, throughY } from '@/core/for-work/predict';
import type { WorkQuestion } from '@/core/for-work/question';
import { sayAnswer, sayCheck, sayDemand } from '@/messages/work';
import { collect, inSi, readQuantity } from './quantities';
import { templateMachine } from './template-machine';

const within = (
  input: QuantityInput,
  {
    kind,
    field,
    most,
  }: { readonly kind: QuantityKind; readonly field: string; readonly most: readonly [number, number] },
): Result<number> => {
  const read = readQuantity(input, kind, field);
  if (!read.ok) return read;
  const [low, high] = most;
  return read.value >= low && read.value <= high
    ? read
    : fail(failure('quantity.out-of-range', field, { kind, value: read.value, low, high }));
};

const maybe = (input: QuantityInput | null, of: Parameters<typeof within>[1]): Result<number | null> =>
  input === null ? ok(null) : within(input, of);

const questionOf = (input: ToolNeedInput, tools: 1 | 2): Result<WorkQuestion> => {
  const size = maybe(input.size, { kind: 'length', field: 'size', most: [0.005, 1] });
  const air = maybe(input.makerAir, { kind: 'flow', field: 'makerAir', most: [0.0005, 2] });
  const away = maybe(input.away, { kind: 'length', field: 'away', most: [0.01, 2] });
  if (!size.ok || !air.ok || !away.ok) return fail(...[size, air, away].flatMap((r) => (r.ok ? [] : r.failures)));
  const { text, confirmed, denied, answers, tool, wet, place, hours } = input;
  return ok({
    dust: stated(text, { confirmed, denied, answers }),
    tool,
    sizeM: size.value,
    awayM: away.value,
    makerM3s: air.value,
    tools,
    wet,
    place,
    hours,
  });
};

const needOf = (d: Demand): ToolNeedOutput => ({
  sentence: sayDemand(d),
  classes: { eu_uk: d.classes.eu_uk, us: d.classes.us },
  flows: d.flows.map((f) => ({ because: f.because, flow: inSi(f.flowM3s, 'flow') })),
  must: d.mustM3s === null ? null : inSi(d.mustM3s, 'flow'),
  hoseVelocity: d.hoseMs === null ? null : inSi(d.hoseMs, 'velocity'),
  ductVelocity: { low: inSi(d.ductMs.lowMs, 'velocity'), high: inSi(d.ductMs.highMs, 'velocity') },
  gear: [...d.gear],
  respiratorApf: d.respiratorApf,
  forbidden: [...d.forbidden],
  refused: d.standing.refusal?.dust ?? null,
});

/** `calc tool-need`: a work in; class, air at the tool, velocity, equipment and what is forbidden out. */
export const toolNeed = (input: ToolNeedInput): Result<ToolNeedOutput> => {
  const question = questionOf(input, 1);
  if (!question.ok) return question;
  return ok(needOf(demandOf(question.value, assessDust(BUILT_IN_DUSTS, question.value.dust))));
};

const verdictOf = (
  input: WorkInput['machines'][number],
  {
    question,
    demand,
    hoses,
  }: { readonly question: WorkQuestion; readonly demand: Demand; readonly hoses: readonly Hose[] },
): Result<MachineVerdict> => {
  const { kind, machineClass, collected, wetSet, name } = input;
  const made = templateMachine({
    kind,
    machineClass,
    hazard: 'plain',
    lastCollected: collected,
    allowRefused: true,
  });
  if (!made.ok) return made;
  const own: Hose = { boreM: MACHINE_KINDS[kind].hoseM, lengthM: 3 };
  const machine = { ...made.value, tag: name, name: '', wetSet, hoseBoreM: own.boreM, hoseLengthM: own.lengthM };
  const base = {
    machine,
    due: [],
    testedDaysAgo: 0,
    somebodyAtIt: false,
    away: false,
    drying: false,
    caseOpen: false,
    moreThanBaseline: false,
    changedSince: false,
    lasting: [],
    bonding: { kind: 'never' as const },
  };
  const asked = { question, demand };
  const bare = judgeMachine({ ...base, hoses: [] }, asked);
  if (bare.whyNot.length > 0 || question.tool === null) return ok(bare);
  const { model, parameters, basis } = modelledMachine(machine, []);
  const standing = { model, parameters, basis, state: AS_NEW };
  const ready = question.tools === 2 ? throughY(standing) : oneBranch(standing);
  const fixed = MACHINE_KINDS[kind].collector;
  const limits = { mustM3s: demand.mustM3s, hoseMs: fixed ? demand.ductMs.lowMs : demand.hoseMs };
  const predicted = (fixed || hoses.length === 0 ? [own] : hoses).flatMap((h): readonly Pair[] => {
    const p = predictThrough(ready, h);
    return p ? [{ predicted: p, beside: null }] : [];
  });
  return ok(judgeMachine({ ...base, hoses: rankHoses(predicted, limits, own) }, asked));
};

/** `calc work`: a work and machines of a kind, as new, in; which may, on which hose, with what air, and why not, out. */
export const work = (input: WorkInput): Result<WorkOutput> => {
  const { tools, machines, hoses: given, ...asked } = input;
  const question = questionOf(asked, tools);
  const hoses = collect(
    given.flatMap((h, i) => [
      at(`hoses.${i}`, within(h.bore, { kind: 'length', field: 'bore', most: [0.005, 0.5] })),
      at(`hoses.${i}`, within(h.length, { kind: 'length', field: 'length', most: [0.1, 200] })),
    ]),
  );
  if (!question.ok) return question;
  if (!hoses.ok) return hoses;
  const pairs = given.map((_, i): Hose => ({ boreM: hoses.value[2 * i] ?? 0, lengthM: hoses.value[2 * i + 1] ?? 0 }));
  const demand = demandOf(question.value, assessDust(BUILT_IN_DUSTS, question.value.dust));
  const verdicts = machines.map((m, i) =>
    at(`machines.${i}`, verdictOf(m, { question: question.value, demand, hoses: pairs })),
  );
  const failures = verdicts.flatMap((v) => (v.ok ? [] : v.failures));
  if (failures.length > 0) return fail(...failures);
  const ranked = rankMachines(
    verdicts.flatMap((v) => (v.ok ? [v.value] : [])),
    demand,
  );
  return ok({
    sentence: sayAnswer(ranked[0] ?? null, { demand, machines: ranked.length, owners: [], units: 'metric' }),
    need: needOf(demand),
    machines: ranked.map((v) => ({
      name: v.candidate.machine.tag,
      whyNot: [...v.whyNot],
      first: [...v.first],
      afterwards: [...v.afterwards],
      hoses: v.candidate.hoses.map(({ predicted: p, verdict }) => ({
        bore: inSi(p.hose.boreM, 'length'),
        length: inSi(p.hose.lengthM, 'length'),
        verdict,
        flow: inSi(p.flowM3s, 'flow'),
        low: inSi(p.lowM3s, 'flow'),
        high: inSi(p.highM3s, 'flow'),
        velocity: inSi(p.velocityMs, 'velocity'),
      })),
    })),
  });
};

const plateOf = (p: CircuitInput['machine'], path: string): Result<Load> => {
  const amps = maybe(p.current, { kind: 'current', field: `${path}.current`, most: [0, 1000] });
  const watts = maybe(p.power, { kind: 'power', field: `${path}.power`, most: [0, 1e6] });
  return amps.ok && watts.ok
    ? ok({ amps: amps.value, watts: watts.value, powerFactor: p.powerFactor })
    : fail(...[amps, watts].flatMap((r) => (r.ok ? [] : r.failures)));
};

/** `calc circuit`: plates, breaker and lead in; whether they fit, and the voltage at the machine, out. */
export const circuit = (input: CircuitInput): Result<CircuitOutput> => {
  const supply = within(input.supply, { kind: 'voltage', field: 'supply', most: [1, 1000] });
  const breaker = maybe(input.breaker, { kind: 'current', field: 'breaker', most: [0.1, 1000] });
  const socket = maybe(input.socket, { kind: 'power', field: 'socket', most: [1, 1e5] });
  const generator = maybe(input.generator, { kind: 'power', field: 'generator', most: [1, 1e7] });
  const length = maybe(input.lead?.length ?? null, { kind: 'length', field: 'lead.length', most: [0, 5000] });
  const [machine, tool] = [plateOf(input.machine, 'machine'), plateOf(input.tool, 'tool')];
  if (!supply.ok || !breaker.ok || !socket.ok || !generator.ok || !length.ok || !machine.ok || !tool.ok)
    return fail(
      ...[supply, breaker, socket, generator, length, machine, tool].flatMap((r) => (r.ok ? [] : r.failures)),
    );
  const answer = judgeCircuit({
    ruleSet: input.ruleSet,
    supplyV: supply.value,
    breakerA: breaker.value,
    machine: machine.value,
    tool: tool.value,
    socketW: socket.value,
    throughMachine: input.throughMachine,
    lead: input.lead && length.value !== null ? { lengthM: length.value, sectionMm2: input.lead.sectionMm2 } : null,
    hours: input.hours,
    generatorVA: generator.value,
  });
  return ok({
    checks: answer.checks.map((c) => ({ ...c, sentence: sayCheck(c) })),
    together: answer.togetherA === null ? null : inSi(answer.togetherA, 'current'),
    fromWatts: answer.fromWatts,
    drop: answer.dropV === null ? null : inSi(answer.dropV, 'voltage'),
    atMachine: inSi(answer.machineV, 'voltage'),
  });
};
