import { describe, expect, it } from 'vitest';
import { DOFF } from '@/core/procedure/containment';
import type { DustHazard } from '@/core/dust/level';
import type { MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import type { JobScope } from '@/core/procedure/choose';
import { type Violation } from '@/core/procedure/violation';
import { prove } from '@/core/procedure/prove';
import type { CheckKind, ChangeSchool, Procedure, Step, StepKey } from '@/core/procedure/step';
import { templateMachine } from '../../support/machines';

// Each rule of order, broken once in a procedure that is sound without the break. The orders are HSE and OSHA guidance on
// undressing, 29 CFR 1910.147 on isolation and the makers' own for the rest (common practice, no published source; all
// from memory of the sources).

const PART = { id: 1, code: 'P', name: 'part' };
const machineOf = (kind: MachineKind, machineClass: MachineClass | null = null): Machine => {
  const m = templateMachine(kind, { machineClass });
  return {
    ...m,
    stages: m.stages.map((s) => ({
      ...s,
      part: s.spec.air.form === 'medium' || ['dropChamber', 'cyclone', 'bag'].includes(s.kind) ? PART : null,
    })),
  };
};
interface Sound {
  readonly machine: Machine;
  readonly p: Procedure;
  readonly hazard: DustHazard;
}
const sound = (
  kind: MachineKind,
  stage: string | null,
  {
    hazard = 'contained',
    school = 'off',
    machineClass = null,
    job,
  }: {
    readonly hazard?: DustHazard;
    readonly school?: ChangeSchool;
    readonly machineClass?: MachineClass | null;
    readonly job?: JobScope;
  } = {},
): Sound => {
  const machine = machineOf(kind, machineClass);
  const made = assemble(
    machine,
    job ?? { kind: 'change', stage: machine.stages.findIndex((s) => s.kind === stage), school },
    hazard,
  );
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  expect(prove(made.value, machine, hazard)).toEqual([]);
  return { machine, p: made.value, hazard };
};

type What = StepKey | CheckKind | NonNullable<Step['moves']>;
const is = (what: What) => (s: Step) => s.key === what || s.check === what || s.moves === what;
const kinds = ({ machine, hazard }: Sound, p: Procedure): readonly Violation['kind'][] => [
  ...new Set(prove(p, machine, hazard).map((v) => v.kind)),
];
/** One step moved to before, or to after, another. */
const moved = (p: Procedure, what: What, to: 'before' | 'after', other: What): Procedure => {
  const step = p.steps.find(is(what));
  if (!step) throw new Error(`no ${what} in ${p.id}`);
  const rest = p.steps.filter((s) => s !== step);
  const at = rest.findIndex(is(other));
  if (at < 0) throw new Error(`no ${other} in ${p.id}`);
  const k = to === 'before' ? at : at + 1;
  return { ...p, steps: [...rest.slice(0, k), step, ...rest.slice(k)] };
};
const without = (p: Procedure, what: What): Procedure => ({ ...p, steps: p.steps.filter((s) => !is(what)(s)) });
const changed = (p: Procedure, what: What, over: Partial<Step>): Procedure => ({
  ...p,
  steps: p.steps.map((s) => (is(what)(s) ? { ...s, ...over } : s)),
});

const MAIN = () => sound('hExtractor', 'mainFilter', { machineClass: 'H' });

describe('undressing (HSE and OSHA guidance: what is outermost first, the respirator last, then wash)', () => {
  it('is in that order at each level', () => {
    expect(DOFF.contained.indexOf('offRespirator')).toBeGreaterThan(DOFF.contained.indexOf('offCoverall'));
    expect(DOFF.contained.slice(-2)).toEqual(['washFace', 'freeArea']);
  });

  it.each<[string, (p: Procedure) => Procedure]>([
    ['the respirator before the coverall', (p) => moved(p, 'offRespirator', 'before', 'offCoverall')],
    ['the face washed before the respirator is off', (p) => moved(p, 'washFace', 'before', 'offRespirator')],
    ['undressed while the machine is still open', (p) => moved(p, 'offRespirator', 'before', 'close')],
    ['the respirator put on after it opens', (p) => moved(p, 'putOnRespirator', 'after', 'open')],
  ])('%s is seen', (_, broken) => {
    const s = MAIN();
    expect(kinds(s, broken(s.p)).some((k) => ['undressOrder', 'tooLate'].includes(k))).toBe(true);
  });
});

describe('isolation (29 CFR 1910.147: by what feeds it, before hands go in, again after every run)', () => {
  it('a plug on a machine that hangs on a breaker, or on air, is the wrong one', () => {
    for (const [kind, stage, own] of [
      ['cycloneCollector', 'cyclone', 'isolateBreaker'],
      ['centralUnit', null, 'isolateBreaker'],
    ] as const) {
      const machine = machineOf(kind);
      const at = stage ?? machine.stages.find((s) => s.part !== null && s.kind !== 'cyclone')?.kind ?? '';
      const s = sound(kind, at);
      expect(s.p.steps.some((x) => x.key === own)).toBe(true);
      expect(kinds(s, changed(s.p, own, { key: 'isolate' }))).toContain('wrongIsolation');
    }
  });

  it('hands in without it, or after a run without it again', () => {
    const s = MAIN();
    expect(kinds(s, without(s.p, 'isolate'))).toContain('notIsolated');
    const pulse = sound('grinderExtractor', 'dropChamber');
    const last = pulse.p.steps.findLastIndex((x) => x.key === 'isolate');
    expect(
      kinds(pulse, { ...pulse.p, steps: pulse.p.steps.filter((_, i) => i !== last) }).some((k) =>
        ['notIsolated', 'methodOrder'].includes(k),
      ),
    ).toBe(true);
  });
});

describe('the inlet plug', () => {
  it('goes in before the container opens and comes out only closed, latched and off', () => {
    const s = MAIN();
    expect(kinds(s, moved(s.p, 'unplugInlet', 'before', 'latch'))).toContain('unplugEarly');
    expect(kinds(s, changed(s.p, 'unplugInlet', { run: 'running' }))).toContain('unplugEarly');
    expect(kinds(s, without(s.p, 'unplugInlet'))).toContain('leftOpen');
    expect(kinds(s, moved(s.p, 'plugInlet', 'after', 'wipe')).length).toBeGreaterThan(0);
  });
});

describe('the old part and the seat', () => {
  it.each<[string, (p: Procedure) => Procedure, Violation['kind']]>([
    ['not tied', (p) => without(p, 'tieBag'), 'hazardStepMissing'],
    ['not in a second bag', (p) => without(p, 'secondBag'), 'hazardStepMissing'],
    ['the label after it has gone', (p) => moved(p, 'labelWaste', 'after', 'disposeOld'), 'tooLate'],
    ['the wipes left behind', (p) => without(p, 'wipesIntoWaste'), 'hazardStepMissing'],
    ['its clean side not looked at', (p) => without(p, 'lookCleanSide'), 'checkMissing'],
    [
      'its clean side looked at when it is in its bag',
      (p) => moved(p, 'lookCleanSide', 'after', 'bagOld'),
      'checkMissing',
    ],
    [
      'tightened before the gasket was seen',
      (p) => moved(p, 'tightenFixings', 'before', 'gasketSide'),
      'tightenedUnseen',
    ],
    ['opened again after its proof', (p) => moved(p, 'integrityTest', 'before', 'wipe'), 'openedAfterProof'],
    ['not screened', (p) => without(p, 'integrityTest'), 'integrityMissing'],
  ])('%s is seen', (_, broken, kind) => {
    const s = MAIN();
    expect(kinds(s, broken(s.p))).toContain(kind);
  });
});

describe('each method keeps its own order', () => {
  it.each<[string, Sound, (p: Procedure) => Procedure]>([
    [
      'a safety bag tied off before its mouth is sealed',
      sound('hExtractor', 'bag', { machineClass: 'H' }),
      (p) => moved(p, 'tieOff', 'before', 'sealMouth'),
    ],
    [
      'a safety bag whose holes stay shut in use',
      sound('hExtractor', 'bag', { machineClass: 'H' }),
      (p) => without(p, 'breathersInside'),
    ],
    [
      'a liner cut without letting the dust settle',
      sound('grinderExtractor', 'dropChamber'),
      (p) => without(p, 'letSettle'),
    ],
    [
      'a collector emptied with its gates open',
      sound('cycloneCollector', 'cyclone', { hazard: 'controlled' }),
      (p) => without(p, 'closeGates'),
    ],
    [
      'a collector emptied without a look for embers',
      sound('cycloneCollector', 'cyclone', { hazard: 'controlled' }),
      (p) => without(p, 'noEmbers'),
    ],
    [
      'an indicator judged with the disc left in',
      sound('hExtractor', null, { job: { kind: 'indicatorCheck' }, hazard: 'plain' }),
      (p) => without(p, 'discOff'),
    ],
    [
      'sent away without its decontamination note',
      sound('hExtractor', null, { job: { kind: 'service' } }),
      (p) => without(p, 'decontaminationNote'),
    ],
    [
      'an air-driven bag taken before its inlets have closed',
      sound('pneumaticHepa', 'cyclone', { school: 'running' }),
      (p) => without(p, 'letInletsClose'),
    ],
    [
      'the second vacuum still on when the head goes on',
      sound('hepaTank', 'bag', { school: 'secondVacuum' }),
      (p) => moved(p, 'stopSecond', 'after', 'headOn'),
    ],
  ])('%s is seen', (_, s, broken) => {
    expect(kinds(s, broken(s.p)).length).toBeGreaterThan(0);
  });

  it('a hose cleared in contained dust is capped', () => {
    const s = sound('mExtractor', null, { job: { kind: 'hosePlug' } });
    expect(kinds(s, without(s.p, 'capHose')).length).toBeGreaterThan(0);
  });
});
