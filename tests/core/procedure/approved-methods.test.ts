import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { careOf, type JobScope, offersOf, wholeJobsOf } from '@/core/procedure/choose';
import { CHANGE_SCHOOLS, type Procedure, type Step } from '@/core/procedure/step';
import { templateMachine } from '../../support/machines';

// Every method in full, one line a step, as it was read and approved by the person who would obey it. A changed order,
// check, caution or state of the machine shows here, and is read again before the file is written anew (vitest -u).

const CLASS: Partial<Record<MachineKind, MachineClass>> = {
  mExtractor: 'M',
  hExtractor: 'H',
  hepaTank: 'HEPA',
  grinderExtractor: 'HEPA',
  pneumaticHepa: 'HEPA',
};
const PART = { id: 1, code: 'P', name: 'part' };
const HAS_PART = new Set(['dropChamber', 'cyclone', 'bag']);

const machineOf = (kind: MachineKind): Machine => {
  const machine = templateMachine(kind, { machineClass: CLASS[kind] ?? null });
  const stages = machine.stages.map((s) =>
    s.spec.air.form === 'medium' || HAS_PART.has(s.kind) ? { ...s, part: PART } : s,
  );
  return { ...machine, stages };
};

const jobsOf = (machine: Machine): readonly JobScope[] => [
  ...machine.stages.flatMap((stage, i) =>
    CHANGE_SCHOOLS.filter((s) => offersOf(machine, stage)[s] !== undefined).map((school): JobScope => ({
      kind: 'change',
      stage: i,
      school,
    })),
  ),
  ...machine.stages.flatMap((stage, i) => careOf(machine, stage).map((kind): JobScope => ({ kind, stage: i }))),
  ...wholeJobsOf(machine).map((kind): JobScope => ({ kind })),
];

const line = (machine: Machine, s: Step): string =>
  [
    s.key,
    s.stage === null ? '' : `[${machine.stages[s.stage]?.name ?? '?'}]`,
    s.run,
    s.check ? `check ${s.check}` : '',
    s.moves ? `moves ${s.moves}` : '',
    s.opens ? `opens ${s.opens}` : '',
    s.closes ? `closes ${s.closes}` : '',
    s.dusty ? 'dusty' : '',
    s.caution ? `! ${s.caution}` : '',
    `(${s.because})`,
  ]
    .filter((x) => x !== '')
    .join(' ');

const written = (machine: Machine, p: Procedure): string =>
  [
    ...p.steps.map((s) => `  ${line(machine, s)}`),
    ...(p.turnBack.length > 0 ? ['  turned back:', ...p.turnBack.map((s) => `    ${line(machine, s)}`)] : []),
    ...(p.integrity.length > 0 ? [`  then tested: ${p.integrity.join(', ')}`] : []),
    ...(p.before.length > 0 ? [`  only: ${p.before.map((b) => JSON.stringify(b)).join(' ')}`] : []),
  ].join('\n');

describe('every method, written out', () => {
  it('in plain dust, each once', async () => {
    const seen = new Map<string, string>();
    for (const kind of Object.keys(MACHINE_KINDS) as MachineKind[]) {
      const machine = machineOf(kind);
      for (const job of jobsOf(machine)) {
        const made = assemble(machine, job, 'plain');
        if (!made.ok) throw new Error(`${kind} ${JSON.stringify(job)}`);
        const text = written(machine, made.value);
        const key = `${made.value.id}\n${text}`;
        if (!seen.has(key)) seen.set(key, `${made.value.id}, ${made.value.school}: ${kind}`);
      }
    }
    const all = [...seen].map(([key, title]) => `${title}\n${key.slice(key.indexOf('\n') + 1)}`).sort();
    expect(all.length).toBeGreaterThan(30);
    await expect(`${all.join('\n\n')}\n`).toMatchFileSnapshot('approved-methods.txt');
  });

  it('what the levels of dust lay around one of them', async () => {
    const machine = machineOf('hepaTank');
    const stage = machine.stages.findIndex((s) => s.kind === 'bag');
    const all = (['plain', 'controlled', 'contained'] as const).map((level) => {
      const made = assemble(machine, { kind: 'change', stage, school: 'off' }, level);
      if (!made.ok) throw new Error(level);
      return `${level}\n${written(machine, made.value)}`;
    });
    await expect(`${all.join('\n\n')}\n`).toMatchFileSnapshot('approved-levels.txt');
  });
});
