import type { HoseChart } from '@/charts/hose-option';
import type { DustAnswer, DustQuestion } from '@/core/dust/dust';
import { careAfter, putIn } from '@/core/for-work/put-in';
import type { MachineVerdict } from '@/core/for-work/judge-machine';
import type { Predicted } from '@/core/for-work/predict';
import { DRYING_HOURS } from '@/core/procedure/assemble';
import { wheelThatFitsM } from '@/core/for-work/tools';
import { fromSi, show, type UnitSystem, fixed } from '@/core/units';
import { CLEANING_WORDS, NO_CARE_WORDS } from '@/messages/dust';
import { sayLasting } from '@/messages/lasting';
import { PUT_IN_WORDS, sayHose } from '@/messages/work';
import { capital } from '@/messages/words';
import type { WorkAnswer } from '@/server/services/jobs/work-desk';

type Params = Readonly<Record<string, string>>;

/** The address of the same question with something of it otherwise; '' leaves it out. */
export const workAddress = (search: URLSearchParams, over: Params, path = '/work'): string => {
  const next = new URLSearchParams(search);
  for (const [key, value] of Object.entries(over)) {
    if (value === '') next.delete(key);
    else next.set(key, value);
  }
  return `${path}?${next.toString()}`;
};

const listIn = (search: URLSearchParams, key: string): readonly string[] =>
  (search.get(key) ?? '').split(',').filter((x) => x !== '');

/** The address with one more dust confirmed or denied. */
export const withLikeness = (search: URLSearchParams, key: string, said: 'yes' | 'no'): string =>
  workAddress(search, { of: search.get('q') ?? '', [said]: [...new Set([...listIn(search, said), key])].join(',') });

/** The address with a question of the dust answered. */
export const withAnswer = (search: URLSearchParams, question: DustQuestion, answer: DustAnswer): string =>
  workAddress(search, {
    of: search.get('q') ?? '',
    answers: [
      ...listIn(search, 'answers').filter((pair) => !pair.startsWith(`${question}:`)),
      `${question}:${answer}`,
    ].join(','),
  });

const point = ({ hose, flowM3s, velocityMs }: Predicted) => ({ lengthM: hose.lengthM, flowM3s, velocityMs });

const boreName = (boreM: number, units: UnitSystem): string =>
  units === 'us' ? `${fixed(fromSi('length', boreM, 'in'), 2)} in` : `${Math.round(boreM * 1000)} mm`;

/** The picture of the hoses; null where there is nothing to draw. */
export const hoseChartOf = (answer: WorkAnswer, units: UnitSystem): HoseChart | null =>
  answer.curves.some((c) => c.points.length > 1)
    ? {
        units,
        bores: answer.curves.map((c) => ({ name: boreName(c.boreM, units), points: c.points.map(point) })),
        mustM3s: answer.limits.mustM3s,
        hoseMs: answer.limits.hoseMs,
        chosen: answer.chosen?.hose ? point(answer.chosen.hose.predicted) : null,
      }
    : null;

/** The largest wheel the nearest machine would do for, m; null where the air is not all it lacks. */
export const wheelInstead = ({ question, demand }: WorkAnswer, nearest: MachineVerdict): number | null => {
  const onlyAir = nearest.whyNot.length === 1 && nearest.whyNot[0] === 'tooLittleAir';
  const byTable = demand.flows.some((f) => f.because === 'taskTable');
  return onlyAir && byTable && nearest.hose && question.tool
    ? wheelThatFitsM(question.tool, nearest.hose.predicted.lowM3s)
    : null;
};

/** Parts for the chosen machine, and how to clean its filters afterwards: lines to read out. */
export const setLines = (
  { demand, question }: WorkAnswer,
  { candidate: { machine, lasting } }: MachineVerdict,
): Record<'put' | 'care' | 'lasting', readonly string[]> => ({
  lasting: lasting.map((l) =>
    sayLasting(machine.stages.find((s) => s.id === l.stageId)?.name ?? '', l, question.hours),
  ),
  put: putIn(machine, demand, question.tools).map((p) => PUT_IN_WORDS[p]),
  care: [
    ...(demand.wet
      ? [
          `The container is emptied and rinsed the same day; the wet set dries ${DRYING_HOURS} h before the machine is closed or fitted dry: damp media cake and grow mould.`,
        ]
      : []),
    ...careAfter(machine, demand.standing).map(({ stage, ways, because }) =>
      because
        ? `${capital(stage.name)} ${NO_CARE_WORDS[because]}.`
        : `${capital(stage.name)}: ${ways.map((w) => CLEANING_WORDS[w]).join(', or ')}; never blown out.${ways.includes('wash') ? ` Rinsed or washed, it goes back only when it is fully dry: ${DRYING_HOURS} h at the least.` : ''}`,
    ),
  ],
});

/** Why this hose and not another, with the figures. */
export const sayHoseChoice = ({ limits, chosen }: WorkAnswer, units: UnitSystem): string => {
  const best = chosen?.hose;
  if (!best) return '';
  const { predicted: p, verdict } = best;
  const speed =
    limits.hoseMs === null
      ? ''
      : `, and ${show('velocity', p.velocityMs, units)} where ${show('velocity', limits.hoseMs, units)} keeps the dust moving`;
  const air = limits.mustM3s === null ? '' : ` where it needs ${show('flow', limits.mustM3s, units)}`;
  const hose = sayHose(p.hose, units);
  const does = {
    does: 'does it',
    perhaps: 'does it by the model',
    tooSlow: 'is too slow',
    tooLittle: 'gives too little',
    neither: 'does neither',
  }[verdict];
  return `The ${hose} ${does}: ${show('flow', p.flowM3s, units)} at the tool${air}${speed}.`;
};
