import { describe, expect, it } from 'vitest';
import type { Machine } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import type { Procedure, Step } from '@/core/procedure/step';
import { jobsOf, KINDS, machineOfKind } from '../../support/jobs';

// Every method in full, one line a step, as it was read and approved by the person who would obey it. A changed order,
// check, caution or state of the machine shows here, and is read again before the file is written anew (vitest -u).

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
    for (const kind of KINDS) {
      const machine = machineOfKind(kind);
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
    const machine = machineOfKind('hepaTank');
    const stage = machine.stages.findIndex((s) => s.kind === 'bag');
    const all = (['plain', 'controlled', 'contained'] as const).map((level) => {
      const made = assemble(machine, { kind: 'change', stage, school: 'off' }, level);
      if (!made.ok) throw new Error(level);
      return `${level}\n${written(machine, made.value)}`;
    });
    await expect(`${all.join('\n\n')}\n`).toMatchFileSnapshot('approved-levels.txt');
  });
});
