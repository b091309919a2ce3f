// Proves every procedure, and checks the prover, the register of dusts and the work desk against lists written by hand.
import { prove } from '@/core/procedure/prove/prove';
import { checkProcedures } from '../cli/check-procedures';
import { CARELESS } from '../tests/bench/safety/careless';
import { checkDesk, MATERIALS } from '../tests/bench/safety/desk';
import { judgePhrase } from '../tests/bench/safety/judge-phrase';
import { PHRASES } from '../tests/bench/safety/phrases';
import { procedureOf } from '../tests/bench/safety/written';
import { machineOfKind } from '../tests/support/jobs';
import { sayViolation } from '@/messages/violations';
import { report } from './bench-report';

const checked = checkProcedures();
const unproven = checked.filter((c) => c.violations.length > 0);
const countBy = <T>(list: readonly T[], of: (item: T) => string): Record<string, number> => {
  const counts: Record<string, number> = {};
  for (const item of list) counts[of(item)] = (counts[of(item)] ?? 0) + 1;
  return counts;
};

const found = CARELESS.map((c) => {
  const machine = { ...machineOfKind(c.kind), hazard: c.level };
  const procedure = procedureOf(c, machine);
  const [key] = c.at.split(' @');
  const hit = prove(procedure, machine, c.level).find(
    (v) => v.kind === c.reason && (v.at === null ? 'end' : procedure.steps[v.at]?.key) === key,
  );
  return { what: c.what, said: hit ? sayViolation(hit) : 'NOT FOUND' };
});

const judged = PHRASES.map((p) => ({ ...p, ...judgePhrase(p) }));
const desk = checkDesk();

report({
  name: 'safety',
  seed: 0,
  figures: [
    {
      id: 'safety.combinations',
      value: checked.length,
      unit: 'procedures',
      goal: 'every kind, stage, method, level and class',
    },
    { id: 'safety.unproven', value: unproven.length, unit: 'procedures', goal: '0' },
    { id: 'safety.wrong_procedures', value: CARELESS.length, unit: 'procedures written by hand', goal: '>= 40' },
    {
      id: 'safety.wrong_found',
      value: found.filter((f) => f.said !== 'NOT FOUND').length,
      unit: 'found with step and reason',
      goal: 'all',
    },
    { id: 'safety.phrases', value: judged.length, unit: 'phrases', goal: '>= 300' },
    { id: 'safety.lax', value: judged.filter((j) => j.lax).length, unit: 'phrases', goal: '0' },
    {
      id: 'safety.strict',
      value: judged.filter((j) => j.strict).length / judged.length,
      unit: 'share',
      goal: '<= 0.05',
    },
    { id: 'safety.desk_materials', value: MATERIALS.length, unit: 'materials', goal: '>= 60' },
    { id: 'safety.desk_asked', value: desk.asked, unit: 'works, each on 16 machines', goal: '' },
    { id: 'safety.desk_violations', value: desk.violations.length, unit: 'violations', goal: '0' },
    { id: 'safety.desk_refused_for_nothing', value: desk.refusedForNothing.length, unit: 'works', goal: '0' },
  ],
  tables: {
    byProcedure: countBy(checked, (c) => c.procedure.id),
    byKind: countBy(checked, (c) => c.machine.kind),
    unproven: unproven.slice(0, 20).map((c) => ({ of: c.of, reasons: c.violations.map(sayViolation) })),
    wrong: found,
    strict: judged.filter((j) => j.strict).map((j) => j.text),
  },
});
