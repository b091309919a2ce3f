import { describe, expect, it } from 'vitest';
import { CheckProcedureOutput, ProcedureOutput } from '@/contracts/calc/procedure';
import { runCli } from '../../cli/run';

const run = async (name: string, input: unknown) => {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await runCli({
    args: ['calc', name],
    readInput: () => Promise.resolve(JSON.stringify(input)),
    write: (t) => out.push(t),
    complain: (t) => err.push(t),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return {
    code,
    json: JSON.parse((code === 0 ? out : err).join('')) as { problems?: { code: string; path: string }[] },
  };
};
const job = (stage: string, school = 'off') => ({ kind: 'change', stage, school });
const H = { kind: 'hExtractor', machineClass: 'H' };

describe('calc procedure and check-procedure', () => {
  it('the contained change of a safety bag, step by step with its reasons, from the hazard question to the measurement', async () => {
    const p = ProcedureOutput.parse(
      (await run('procedure', { machine: H, hazard: 'contained', job: job('bag') })).json,
    );
    expect(p.procedure).toBe('Sealed safety bag');
    expect(p.steps[0]?.text).toContain('collected');
    expect(p.steps.map((s) => s.key).slice(-8)).toEqual([
      'wipeSuit',
      'offOvershoes',
      'offCoverall',
      'tieSuitBag',
      'washHands',
      'offRespirator',
      'washFace',
      'freeArea',
    ]);
    expect(p.steps.find((s) => s.key === 'restrictArea')?.why).toBe('contained dust');
    expect(p.steps.every((s, i) => s.step === i + 1 && s.text.length > 3 && !/undefined|null/.test(s.text))).toBe(true);
    const two = ProcedureOutput.parse(
      (
        await run('procedure', {
          machine: { kind: 'hepaTank', machineClass: 'HEPA' },
          hazard: 'controlled',
          job: job('bag', 'secondVacuum'),
        })
      ).json,
    );
    expect(two.schools.sort()).toEqual(['headAside', 'off']);
  });

  it('is sound as it is, and says in a sentence what a left-out step does to it', async () => {
    const input = { machine: H, hazard: 'contained', job: job('mainFilter') };
    const p = ProcedureOutput.parse((await run('procedure', input)).json);
    expect(p.integrity).toEqual(['cleanSide', 'smoke', 'particles']);
    expect(CheckProcedureOutput.parse((await run('check-procedure', input)).json)).toEqual({
      sound: true,
      violations: [],
    });
    const without = async (key: string) =>
      CheckProcedureOutput.parse(
        (await run('check-procedure', { ...input, without: [p.steps.find((s) => s.key === key)?.step ?? 0] })).json,
      );
    expect((await without('integrityTest')).violations.map((v) => v.kind)).toContain('notScreened');
    expect((await without('isolate')).violations[0]?.sentence).toContain('before the machine is isolated');
    expect((await without('close')).violations.map((v) => v.sentence).join()).toContain('left open: the lid.');
  });

  it.each<[string, object, string]>([
    [
      'asbestos',
      { machine: H, hazard: 'contained', lastCollected: 'asbestos', job: job('bag') },
      'dust.refused lastCollected',
    ],
    [
      'a school the machine was not built for',
      { machine: H, hazard: 'plain', job: job('bag', 'running') },
      'procedure.school job.school',
    ],
    ['a stage it lacks', { machine: H, hazard: 'plain', job: job('cyclone') }, 'stage.unknown job.stage'],
    ['a fan', { machine: H, hazard: 'plain', job: job('fan') }, 'stage.not-changeable job.stage'],
  ])('%s is refused by name', async (_what, input, code) => {
    const { code: exit, json } = await run('procedure', input);
    expect(exit).toBe(1);
    expect(json.problems?.map((x) => `${x.code} ${x.path}`)).toEqual([code]);
  });
});
