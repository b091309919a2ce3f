import { assessDust, stated } from '@/core/dust/assess';
import type { Dust } from '@/core/dust/dust';
import { JUDGED_PROPERTIES } from '@/core/for-work/clashes';
import { demandOf } from '@/core/for-work/demand';
import { judgeMachine, type MachineVerdict } from '@/core/for-work/judge-machine';
import { aboutDust, type WorkQuestion } from '@/core/for-work/question';
import { loadRegister } from '../../repositories/dusts';
import type { Context } from '../yard/user-action';
import { candidateOf, loadAround } from './work-desk';
import { loadYard, type Yard } from '../yard/yard';

/** A kind of dust that asks for the same of every machine, with an example of each word for it. */
export interface DustColumn {
  readonly names: readonly string[];
  readonly dust: Dust;
}

export interface WorkYard {
  readonly yard: Yard;
  readonly columns: readonly DustColumn[];
  readonly rows: readonly {
    readonly verdicts: readonly MachineVerdict[];
    readonly tag: string;
    readonly name: string;
  }[];
}

/** Dusts of one family that ask for the same are one column. */
const columnsOf = (register: readonly Dust[]): readonly DustColumn[] => {
  const found = new Map<string, DustColumn>();
  for (const dust of register.filter((d) => !d.retired)) {
    // Everything a machine is judged by: two dusts of one column get the same answer.
    const { family, neededClass, level, refused, properties } = dust;
    const key = JSON.stringify([
      family,
      neededClass,
      level,
      refused,
      properties.filter((p) => JUDGED_PROPERTIES.has(p)).sort(),
    ]);
    const held = found.get(key);
    found.set(key, held ? { ...held, names: [...held.names, dust.name] } : { names: [dust.name], dust });
  }
  return [...found.values()];
};

/** The dust as certain: every question its words would raise is answered no. */
const certainly = (dust: Dust): WorkQuestion =>
  aboutDust(
    stated(dust.name, {
      confirmed: [dust.key],
      answers: Object.fromEntries(dust.asks.map((q) => [q, 'no' as const])),
    }),
    { wet: dust.family === 'wet' },
  );

/** Which machine may take which dust today, by class, state and history; the air is asked at the desk. */
export const workYard = async (context: Context): Promise<WorkYard> => {
  const yard = await loadYard(context);
  const register = await loadRegister(context.db);
  const around = await loadAround(context, yard);
  const columns = columnsOf(register);
  const asked = columns.map(({ dust }) => {
    const question = certainly(dust);
    return { question, demand: demandOf(question, assessDust(register, question.dust)) };
  });
  const byTag = [...yard.machines].sort((a, b) => (a.machine.tag < b.machine.tag ? -1 : 1));
  return {
    yard,
    columns,
    rows: byTag.map((status) => {
      const candidate = candidateOf(around, status);
      return {
        tag: status.machine.tag,
        name: status.machine.name,
        verdicts: asked.map((a) => judgeMachine(candidate, a)),
      };
    }),
  };
};
