import { PlainAnswer } from '@/contracts/action-answer';
import type { DecontaminatedBody, EditDustBody, ExaminationBody, RuleSetBody, StateDustBody } from '@/contracts/dust';
import { assessDust, type DustStatement } from '@/core/dust/assess';
import { checkDust } from '@/core/dust/edit';
import { isBelow } from '@/core/dust/level';
import { normalised } from '@/core/dust/text';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Machine, MachineDustStanding } from '@/core/machine/machine';
import type { Db } from '../../db/connect';
import { insertCollected, insertDecontamination, insertDust, loadRegister } from '../../repositories/dusts';
import { findMachine } from '../../repositories/machines';
import { insertExamination } from '../../repositories/proofs';
import { loadSite } from '../../repositories/site';
import { changeSite } from './site-settings';
import { type Context, refuseAndKeep, runOnce } from './user-action';

/** What nothing may be done on; null where the machine may be worked at. */
export const refusedBy = (machine: MachineDustStanding): ReturnType<typeof fail> | null => {
  const { refusal } = machine.dust.standing;
  return refusal ? fail(failure('dust.refused', 'dust.text', { what: refusal.dust, instead: refusal.instead })) : null;
};

const same = (a: DustStatement, b: DustStatement): boolean =>
  JSON.stringify([a.confirmed, a.denied, a.answers, a.own, a.lowerBecause]) ===
  JSON.stringify([b.confirmed, b.denied, b.answers, b.own, b.lowerBecause]);

interface Statement {
  readonly statement: DustStatement;
  readonly by: string;
  readonly at: string;
  readonly since?: string | null;
}

/**
 * Records a new statement of a machine's dust and returns the machine with it: the strictest of all its dusts governs.
 * A likeness must be confirmed or denied; lowering needs a reason.
 */
export const keepStatement = async (
  tx: Db,
  machine: Machine,
  { statement, by, at, since = null }: Statement,
): Promise<Result<Machine>> => {
  const standing = assessDust(await loadRegister(tx), statement);
  if (standing.toConfirm.length > 0) {
    const names = [...new Set(standing.toConfirm.map((m) => m.key))].length;
    return fail(
      failure('dust.confirm', 'dust.text', {
        words: [...new Set(standing.toConfirm.map((m) => m.words))].join(', '),
        names: names === 1 ? 'a word of the register' : 'words of the register',
      }),
    );
  }
  const lowers = statement.own !== null && isBelow(statement.own, standing.byRegister) && standing.refusal === null;
  if (lowers && statement.lowerBecause.trim() === '')
    return fail(failure('dust.reason', 'dust.lowerBecause', { level: standing.byRegister }));
  const known = machine.dust.collected.find((c) => normalised(c.text) === normalised(statement.text));
  const fresh =
    !(known?.said && same(known.said, statement) && since === null) &&
    !(machine.dust.collected.length === 0 && standing.dusts.length === 0 && standing.level === 'plain');
  if (fresh) await insertCollected(tx, machine.id, { ...statement, since, at, by });
  return ok((await findMachine(tx, machine.tag)) ?? machine);
};

/** A statement of a machine's dust from its own page. */
export const stateDust = async (
  { db, now }: Context,
  tag: string,
  body: StateDustBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `dust ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    if (body.since !== null && body.since > dayAt(at, (await loadSite(tx)).timeZone))
      return fail(failure('dust.since', 'since'));
    const kept = await keepStatement(tx, machine, { statement: body.dust, by: body.by, at, since: body.since });
    return kept.ok ? ok({ id: kept.value.dust.collected[0]?.said?.id ?? 0 }) : kept;
  });
};

/**
 * Before work begins: records the statement of its dust, even where it is refused, and decides how the machine is
 * opened.
 */
export const stateBefore = async (
  tx: Db,
  machine: Machine,
  said: Statement,
): Promise<Result<Machine> & { readonly keep?: true }> => {
  const kept = await keepStatement(tx, machine, said);
  if (!kept.ok) return kept;
  const refused = refusedBy(kept.value);
  return refused ? refuseAndKeep(refused) : kept;
};

/** A decontamination done by others: who, and on which paper. */
export const recordDecontaminated = async (
  { db, now }: Context,
  tag: string,
  body: DecontaminatedBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `decontaminated ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    if (body.who === '' || body.paper === '')
      return fail(failure('dust.contractor', body.who === '' ? 'who' : 'paper'));
    if (body.on > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('dust.since', 'on'));
    return ok({
      id: await insertDecontamination(tx, machine.id, {
        at,
        on: body.on,
        by: body.by,
        how: 'contractor',
        paper: `${body.who}, ${body.paper}`,
        jobId: null,
      }),
    });
  });
};

/** Adds a dust to the register, or edits one. */
export const editDust = async ({ db, now }: Context, body: EditDustBody): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'dust of the register', body, at, answers: PlainAnswer }, async (tx) => {
    const checked = checkDust(body.dust);
    return checked.ok ? ok({ id: await insertDust(tx, { dust: checked.value, at, by: body.by }) }) : checked;
  });
};

/** The rule set that a site works to: it is shown first; where the two disagree both are, and the stricter governs. */
export const chooseRuleSet = async (
  { db, now }: Context,
  body: RuleSetBody,
): Promise<Result<{ readonly id: number }>> =>
  runOnce(db, { kind: 'rule set', body, at: now(), answers: PlainAnswer }, async (tx) => {
    const site = await loadSite(tx);
    await changeSite(tx, { after: { ...site, ruleSet: body.ruleSet }, by: body.by, at: now() });
    return ok({ id: 1 });
  });

/** A thorough examination by a competent person, and its finding. */
export const recordExamination = async (
  { db, now }: Context,
  tag: string,
  body: ExaminationBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `examination ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    if (body.on > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('examination.future', 'on'));
    return ok({
      id: await insertExamination(tx, machine.id, {
        on: body.on,
        at,
        by: body.by,
        examiner: body.examiner,
        found: body.found,
      }),
    });
  });
};
