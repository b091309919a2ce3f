import { describe, expect, it } from 'vitest';
import { type MachineKind } from '@/core/machine/kinds';
import { DUST_HAZARDS, type DustHazard } from '@/core/dust/level';
import type { Machine } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { inOrder, type JobScope, offersOf } from '@/core/procedure/choose';
import { type Violation } from '@/core/procedure/violation';
import { prove, turnedTrack } from '@/core/procedure/prove/prove';
import { CHANGE_SCHOOLS, type ChangeSchool, type Procedure, type Step } from '@/core/procedure/step';
import { jobsOf, KINDS, machineOfKind } from '../../support/jobs';

const made = (machine: Machine, job: JobScope, hazard: DustHazard): Procedure => {
  const p = assemble(machine, job, hazard);
  if (!p.ok) throw new Error(p.failures.map((f) => `${f.code} ${JSON.stringify(f.facts)}`).join());
  return p.value;
};
const stageOf = (machine: Machine, kind: string) => machine.stages.findIndex((s) => s.kind === kind);
const changeOf = (
  kind: MachineKind,
  stage: string,
  { school = 'off', hazard = 'plain' }: { readonly school?: ChangeSchool; readonly hazard?: DustHazard } = {},
) => {
  const machine = machineOfKind(kind);
  return { machine, procedure: made(machine, { kind: 'change', stage: stageOf(machine, stage), school }, hazard) };
};
const keys = (p: Procedure) => p.steps.map((s) => s.key);
const before = (p: Procedure, a: string, b: string) =>
  keys(p).indexOf(a as never) >= 0 && keys(p).indexOf(a as never) < keys(p).indexOf(b as never);
const dropped = (p: Procedure, want: (s: Step) => boolean): Procedure => ({
  ...p,
  steps: p.steps.filter((s) => !want(s)),
});
const kindsOf = (v: readonly Violation[]) => [...new Set(v.map((x) => x.kind))];

interface Case {
  readonly machine: Machine;
  readonly job: JobScope;
  readonly hazard: DustHazard;
}
/** Every job that every kind of machine allows in dust of every level. */
const everyJob = (hazards: readonly DustHazard[] = DUST_HAZARDS): readonly Case[] =>
  KINDS.flatMap((kind) =>
    hazards.flatMap((hazard) => {
      const machine = { ...machineOfKind(kind), hazard };
      return jobsOf(machine, hazard).map((job) => ({ machine, job, hazard }));
    }),
  );

describe('every procedure', () => {
  it('is sound on every kind of machine, in every school it allows, at every hazard', () => {
    const jobs = everyJob();
    expect(jobs.length).toBeGreaterThanOrEqual(230);
    expect(new Set(jobs.map(({ machine, job, hazard }) => made(machine, job, hazard).id)).size).toBe(24);
    for (const { machine, job, hazard } of jobs)
      expect(
        prove(made(machine, job, hazard), machine, hazard),
        `${machine.kind} ${JSON.stringify(job)} ${hazard}`,
      ).toEqual([]);
  });

  it('opens with the second vacuum for the worst dust, and with the way asked for otherwise', () => {
    const m = machineOfKind('hepaTank');
    const offers = offersOf(m, m.stages[stageOf(m, 'bag')]!);
    const ways = CHANGE_SCHOOLS.filter((school) => offers[school] !== undefined).map((school) => ({ school }));
    expect(ways.length).toBeGreaterThan(1);
    expect(inOrder(ways, 'contained')[0]?.school).toBe('secondVacuum');
    expect(inOrder(ways, 'controlled')).toEqual(ways);
  });

  it('may turn back only where the old part is held; the old one goes back in, seen, the new one back on the shelf', () => {
    const turning = everyJob(['plain', 'controlled']).filter(
      ({ machine, job, hazard }) => made(machine, job, hazard).turnBack.length > 0,
    );
    expect(turning.length).toBeGreaterThan(3);
    for (const { machine, job, hazard } of turning) {
      const p = made(machine, job, hazard);
      const track = turnedTrack(p) ?? [];
      expect(track.filter((s) => s.moves !== undefined).map((s) => s.moves)).toEqual([
        'takeNew',
        'holdOld',
        'fitNew',
        'putOldBack',
        'returnNew',
      ]);
      p.turnBack.forEach((s, i) => {
        const shorter = { ...p, turnBack: p.turnBack.filter((_, k) => k !== i) };
        if (s.key !== 'switchOff') expect(prove(shorter, machine, hazard), `${p.id} without ${s.key}`).not.toEqual([]);
      });
    }
  });

  it('never turns back in contained dust: tied waste stays tied', () => {
    for (const { machine, job, hazard } of everyJob(['contained'])) {
      const p = made(machine, job, hazard);
      expect(p.turnBack).toEqual([]);
      expect(p.steps.filter((s) => s.moves === 'holdOld')).toEqual([]);
    }
  });

  it('loses its soundness with any step that is left out: the prover sees each one go', () => {
    let seen = 0;
    const missed: string[] = [];
    for (const { machine, job, hazard } of everyJob()) {
      const p = made(machine, job, hazard);
      p.steps.forEach((s, i) => {
        seen += 1;
        if (prove({ ...p, steps: p.steps.filter((_, k) => k !== i) }, machine, hazard).length === 0)
          missed.push(`${s.key} ${p.id} ${hazard}`);
      });
    }
    expect(seen).toBeGreaterThan(7000);
    // A head that is latched may go on running into its proof; where nothing is held a light only informs; what was cut off
    // before it dried is cut off still.
    const harmless =
      /^(switchOff (tankBagHeadAside|prefilterWrap)|proveIndicator stackedFilter contained|isolate wash)/;
    expect(missed.filter((m) => !harmless.test(m))).toEqual([]);
  });

  it('says which schools a stage allows, and refuses the others and what is not changed', () => {
    const machine = machineOfKind('pneumaticHepa');
    expect(assemble(machine, { kind: 'change', stage: stageOf(machine, 'bag'), school: 'off' }, 'plain')).toMatchObject(
      { ok: false, failures: [{ code: 'procedure.school', facts: { allowed: 'running' } }] },
    );
    expect(assemble(machine, { kind: 'change', stage: stageOf(machine, 'fan'), school: 'off' }, 'plain')).toMatchObject(
      { ok: false, failures: [{ code: 'stage.not-changeable' }] },
    );
    expect(assemble(machine, { kind: 'change', stage: 77, school: 'off' }, 'plain')).toMatchObject({
      ok: false,
      failures: [{ code: 'stage.unknown' }],
    });
    const held = {
      ...machine,
      stages: machine.stages.map((s) => (s.kind === 'bag' ? { ...s, doNotRemove: true } : s)),
    };
    expect(
      offersOf(held, held.stages[stageOf(held, 'bag')] ?? (held.stages[0] as (typeof held.stages)[number])),
    ).toEqual({});
  });
});

describe('the facts of the trade (common practice, no published source)', () => {
  it('a safety bag: the inlet is plugged FIRST, the breathers closed before the mouth is sealed and tied, the breathers seen inside', () => {
    const { procedure: p } = changeOf('hExtractor', 'bag', { hazard: 'contained' });
    expect(p.id).toBe('safetyBag');
    for (const [a, b] of [
      ['plugInlet', 'open'],
      ['closeBreathers', 'sealMouth'],
      ['sealMouth', 'tieNeck'],
      ['tieNeck', 'bagOld'],
      ['close', 'unplugInlet'],
    ] as const)
      expect(before(p, a, b), `${a} before ${b}`).toBe(true);
    expect(p.steps.map((s) => s.check)).toEqual(
      expect.arrayContaining(['breathersInside', 'contactClear', 'seal1', 'seal2']),
    );
  });

  it('head set aside: latch, THEN off. With a second vacuum: off, THEN latch; the clean machine stops before the head goes on', () => {
    const aside = changeOf('hepaTank', 'bag', { school: 'headAside' });
    const second = changeOf('hepaTank', 'bag', { school: 'secondVacuum', hazard: 'contained' });
    expect(before(aside.procedure, 'latch', 'switchOff')).toBe(true);
    expect(before(second.procedure, 'switchOff', 'latch')).toBe(true);
    expect(before(second.procedure, 'stopSecond', 'headOn')).toBe(true);
    const swapped = { ...second.procedure, school: 'headAside' as const };
    expect(kindsOf(prove(swapped, second.machine, 'contained'))).toContain('latchOrder');
    expect(
      kindsOf(
        prove(
          { ...aside.procedure, steps: aside.procedure.steps.map((s) => ({ ...s, run: 'off' as const })) },
          aside.machine,
          'plain',
        ),
      ),
    ).toContain('wrongState');
  });

  it('a pre-filter wrap only right after a bag; a screw-on HEPA off, seated flush, with a new pre-filter and an integrity test', () => {
    const wrap = changeOf('hepaTank', 'prefilter', { school: 'headAside' });
    expect(wrap.procedure.before).toEqual([{ kind: 'afterChangeOf', stage: stageOf(wrap.machine, 'bag') }]);
    expect(wrap.procedure.steps.map((s) => s.check)).toContain('wrapAllRound');
    const hepa = changeOf('hepaTank', 'hepa', { hazard: 'contained' });
    const wrapAt = stageOf(hepa.machine, 'prefilter');
    expect(hepa.procedure.goesWith).toEqual([wrapAt]);
    expect(hepa.procedure.steps.filter((s) => s.stage === wrapAt && s.moves !== undefined).map((s) => s.moves)).toEqual(
      ['takeNew', 'bagOld', 'fitNew', 'disposeOld'],
    );
    expect(hepa.procedure.steps.filter((s) => s.stage === wrapAt).map((s) => s.check)).toContain('wrapAllRound');
    // Wipes and second bag before the label, the label before anything leaves for the store.
    for (const [a, b] of [
      ['wipesIntoWaste', 'secondBag'],
      ['secondBag', 'labelWaste'],
      ['labelWaste', 'disposeOld'],
    ] as const)
      expect(before(hepa.procedure, a, b)).toBe(true);
    expect(hepa.procedure.integrity).toEqual(['cleanSide', 'smoke', 'particles']);
    expect(hepa.procedure.steps.filter((s) => s.dusty).every((s) => s.run === 'off')).toBe(true);
    expect(before(hepa.procedure, 'latch', 'integrityTest')).toBe(true);
    expect(
      kindsOf(
        prove(
          dropped(hepa.procedure, (s) => s.key === 'integrityTest'),
          hepa.machine,
          'contained',
        ),
      ),
    ).toContain('notScreened');
  });

  it('a cyclone bag under suction: running all the time, the suction on the door broken before it is opened', () => {
    const { procedure: p } = changeOf('pneumaticHepa', 'cyclone', { school: 'running', hazard: 'contained' });
    expect(before(p, 'breakSuction', 'open')).toBe(true);
    expect(p.steps.filter((s) => s.dusty).every((s) => s.run === 'running')).toBe(true);
  });

  it('a stacked filter: the old part is held until the light proves the new one, and only then disposed of', () => {
    const { procedure: p, machine } = changeOf('fumeExtractor', 'prefilter', { hazard: 'controlled' });
    expect(before(p, 'holdOld', 'proveIndicator')).toBe(true);
    expect(before(p, 'proveIndicator', 'disposeOld')).toBe(true);
    expect(
      kindsOf(
        prove(
          dropped(p, (s) => s.moves === 'disposeOld'),
          machine,
          'controlled',
        ),
      ),
    ).toContain('partWithoutFate');
  });

  it('a washed cloth is out of service until dry and never blown out; a purge opens nothing but the inlet', () => {
    const cleaner = machineOfKind('floorCleaner');
    const wash = made(cleaner, { kind: 'wash', stage: stageOf(cleaner, 'exhaustFilter') }, 'plain');
    const machine = machineOfKind('mExtractor');
    expect(wash.driesHours).toBeGreaterThan(0);
    expect(wash.steps.find((s) => s.key === 'wash')?.caution).toBe('noBlowing');
    const purge = made(machine, { kind: 'purge', stage: stageOf(machine, 'mainFilter') }, 'contained');
    expect(purge.steps.flatMap((s) => s.opens ?? [])).toEqual(['inlet']);
  });

  it('the collector: the band clamp is left alone, the ring seen tight; the central can: hands under it before the latches', () => {
    const collector = changeOf('singleStageCollector', 'bag');
    expect(collector.procedure.steps.find((s) => s.opens !== undefined)?.caution).toBe('bandClamp');
    expect(collector.procedure.steps.map((s) => s.check)).toContain('ringTight');
    expect(changeOf('centralUnit', 'bag').procedure.steps.find((s) => s.opens === 'can')?.caution).toBe('hotSeal');
  });

  it('no brushing and no compressed air where dust counts, and only there (29 CFR 1910.242(b), 1926.1153, EN 60335-2-69; from memory)', () => {
    const cautions = (hazard: DustHazard) =>
      changeOf('mExtractor', 'bag', { hazard }).procedure.steps.map((s) => s.caution);
    expect(cautions('plain')).not.toContain('noBrushNoAir');
    expect(cautions('plain')).not.toContain('respirator');
    expect(cautions('controlled')).toEqual(expect.arrayContaining(['noBrushNoAir', 'respirator']));
    expect(cautions('controlled')).not.toContain('suit');
    expect(cautions('contained')).toEqual(expect.arrayContaining(['noBrushNoAir', 'p3', 'suit', 'plugFirst']));
  });

  it("a floor cleaner's full set: bag, filters and brush roll in one opening; hair cut with the bristles spared, drive end first, spun", () => {
    const machine = machineOfKind('floorCleaner');
    const p = made(machine, { kind: 'fullSet' }, 'plain');
    expect(p.steps.filter((s) => s.opens !== undefined)).toHaveLength(1);
    expect(new Set(p.steps.filter((s) => s.moves === 'fitNew').map((s) => s.stage)).size).toBe(3);
    expect(p.steps.find((s) => s.key === 'cutHair')?.caution).toBe('bristles');
    expect(p.steps.map((s) => s.check)).toEqual(expect.arrayContaining(['bristlesFree', 'spinsFree']));
  });

  it('commissioning: bonded first, the hose tugged, the selector set, a baseline measured, the timer started at first use', () => {
    const machine = machineOfKind('mExtractor');
    const p = made(machine, { kind: 'commissioning' }, 'plain');
    const order = ['bondFirst', 'measureBaseline', 'startTimer'].map((k) => keys(p).indexOf(k as never));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order[0]).toBeGreaterThan(0);
    expect(p.steps.map((s) => s.check)).toEqual(expect.arrayContaining(['bonded', 'hoseLocked', 'selectorRight']));
  });
});
