import { describe, expect, it } from 'vitest';
import { traitsOf } from '@/core/diagnose/case-setup';
import { operationsOf } from '@/core/diagnose/next-test';
import { notOffered } from '@/core/diagnose/within';
import { assessDust, stated } from '@/core/dust/assess';
import { DUST_QUESTIONS, REFERRALS } from '@/core/dust/dust';
import { DUST_HAZARDS } from '@/core/dust/level';
import { BUILT_IN_DUSTS, registerOf } from '@/core/dust/register';
import { assemble } from '@/core/procedure/assemble';
import {
  QUESTION_WORDS,
  REFERRAL_WORDS,
  sayDusts,
  sayEquipment,
  sayLevel,
  sayLimit,
  sayNeededClass,
} from '@/messages/dust';
import { testHow } from '@/messages/find-tests';
import { sayStepOf } from '@/messages/step-words';
import { sayCaution } from '@/messages/words';
import { jobsOf, KINDS } from '../support/jobs';
import { modelOf, templateMachine } from '../support/machines';

const plain = (text: string) => {
  expect(text.length).toBeGreaterThan(2);
  expect(text).not.toMatch(/undefined|NaN|null|\[object|Infinity|\s\s|\.\./);
};

describe('what follows from a dust, in words', () => {
  it('is said whole for every dust of the register, with its limits to be checked', () => {
    for (const d of BUILT_IN_DUSTS) {
      const s = assessDust(registerOf([]), stated(d.synonyms[0] ?? d.name));
      [
        sayDusts(s),
        sayLevel(s),
        sayNeededClass(s),
        ...d.limits.map(sayLimit),
        d.note === '' ? 'no note' : d.note,
      ].forEach(plain);
      expect(sayDusts(s).toLowerCase()).toContain(d.name.slice(0, 6).toLowerCase());
    }
    for (const level of DUST_HAZARDS) plain(sayEquipment(level));
    for (const r of REFERRALS) plain(REFERRAL_WORDS[r]);
    for (const q of DUST_QUESTIONS) expect(QUESTION_WORDS[q]).toMatch(/\?$/);
  });

  it('asks for the stricter where the rule sets differ, and says so', () => {
    expect(sayNeededClass(assessDust(registerOf([]), stated('concrete')))).toMatch(/EU\/UK: M.*US: HEPA.*stricter/);
    expect(sayNeededClass(assessDust(registerOf([]), stated('lead')))).not.toMatch(/differ/);
  });
});

describe('cautions fit what the machine is doing', () => {
  it('running work is not told to unplug first; open work is told to cut it off; the worst dust names respirator, plug and bags', () => {
    for (const level of DUST_HAZARDS) {
      expect(sayCaution(level, 'cutOff')).toMatch(/isolate it/i);
      expect(sayCaution(level, 'running')).not.toMatch(/unplug|isolate|pull the plug/i);
    }
    expect(sayCaution('contained', 'cutOff')).toMatch(
      /respirator[\s\S]*plug the inlet[\s\S]*bag again[\s\S]*respirator off last/i,
    );
    expect(sayCaution('controlled', 'cutOff')).toMatch(/no dry brushing, no compressed air/i);
  });

  it('a card of a test never says off and running at once, and none offered in contained dust asks to smell or take a cover off', () => {
    for (const kind of KINDS) {
      const machine = templateMachine(kind);
      const traits = traitsOf(machine);
      for (const op of operationsOf(modelOf(machine), traits)) {
        const allowed = notOffered(op, { stages: machine.stages, traits, level: 'contained', out: [] }) === null;
        if (allowed) expect(testHow(op)).not.toMatch(/smell at|cover off|run, read the flow/i);
      }
    }
  });
});

describe('procedures in words', () => {
  const jobs = KINDS.flatMap((kind) => {
    const machine = templateMachine(kind);
    return jobsOf(machine).map((job) => ({ machine, job }));
  });

  it('a switch-off is said as its method says it only in its own place; waste waits at the edge; nobody takes off a respirator before the coverall', () => {
    let contained = 0;
    for (const { machine, job } of jobs) {
      const made = assemble(machine, job, 'contained');
      if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
      const said = made.value.steps.map((s) =>
        sayStepOf(s, machine.stages[s.stage ?? -1]?.name ?? 'machine', made.value.id),
      );
      said.forEach(plain);
      const at = (words: RegExp) => said.findIndex((s) => words.test(s));
      const latch = at(/^Latch it/);
      const late = said.findLastIndex((s) => /before you latch it/.test(s));
      if (late >= 0) expect(late, made.value.id).toBeLessThan(latch);
      if (at(/^Take off the coverall/) < 0) continue;
      contained += 1;
      expect(at(/^Take off the coverall/)).toBeLessThan(at(/^Take off the respirator/));
      expect(
        said.some((s) => /^Take the old .* to the waste store/.test(s)),
        made.value.id,
      ).toBe(false);
      if (at(/^Cap the inlet/) >= 0) expect(said.some((s) => /back on, tight/.test(s))).toBe(true);
    }
    expect(contained).toBeGreaterThan(30);
  });
});
