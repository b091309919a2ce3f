import type { DustHazard } from '../dust/level';
import { machineStep } from './method';
import type { Step, StepKey } from './step';

type Guarded = Exclude<DustHazard, 'plain'>;

/** Whether hands meet dust in these steps: only then something is worn. */
const touches = (steps: readonly Step[]): boolean => steps.some((s) => s.opens !== undefined || s.dusty === true);

/** Put on in this order. Source: HSE and OSHA guidance for lead and asbestos work, from memory; handbook, section 21. */
const DON: Record<Guarded, readonly Step[]> = {
  controlled: [machineStep('putOnRespirator', 'off', { caution: 'respirator', because: 'controlled' })],
  contained: [
    machineStep('restrictArea', 'off', { because: 'contained' }),
    machineStep('layOutSuitBag', 'off', { because: 'contained' }),
    machineStep('putOnRespirator', 'off', { caution: 'p3', because: 'contained' }),
    machineStep('putOnCoverall', 'off', { caution: 'suit', because: 'contained' }),
    machineStep('tapeGloves', 'off', { because: 'contained' }),
  ],
};

/** The order things come off in: what carries dust first, the respirator last and outside. Source: as `DON`. */
export const DOFF: Record<Guarded, readonly StepKey[]> = {
  controlled: ['offGloves', 'washHands', 'offRespirator', 'washFace'],
  contained: [
    'wipeSuit',
    'offOvershoes',
    'offCoverall',
    'tieSuitBag',
    'washHands',
    'offRespirator',
    'washFace',
    'freeArea',
  ],
};

export const doffed = (hazard: Guarded): readonly Step[] =>
  DOFF[hazard].map((key) =>
    machineStep(key, 'off', {
      because: hazard,
      ...(key === 'offRespirator' && hazard === 'contained' ? { caution: 'respiratorLast' as const } : {}),
    }),
  );

/** Naming a spare is done before anybody dresses. */
const paperwork = (steps: readonly Step[]): readonly Step[] => (steps[0]?.key === 'nameSpare' ? steps.slice(0, 1) : []);

const dressed = (steps: readonly Step[], hazard: Guarded): readonly Step[] =>
  touches(steps)
    ? [...paperwork(steps), ...DON[hazard], ...steps.slice(paperwork(steps).length), ...doffed(hazard)]
    : steps;

/** Sittings of one job: nobody stays dressed while a medium dries. */
const sittings = (steps: readonly Step[]): readonly (readonly Step[])[] => {
  const dries = steps.findIndex((s) => s.key === 'startDrying');
  return dries < 0 ? [steps] : [steps.slice(0, dries + 1), steps.slice(dries + 1)];
};

/**
 * Returns the steps with the protective clothing put on before and taken off after. Plain dust adds only the question
 * about the dust. Controlled dust adds mask and gloves. Contained dust adds the closed area, respirator, hooded coverall
 * and taped gloves. Source: EN 60335-2-69 instructions for M and H; HSE and OSHA for the order of undressing, from memory.
 */
export const worn = (steps: readonly Step[], hazard: DustHazard): readonly Step[] => [
  machineStep('askHazard', 'off', { because: 'safety' }),
  ...(hazard === 'plain' ? steps : sittings(steps).flatMap((s) => dressed(s, hazard))),
];

/** The end of a job that continues in protective clothing. */
export const wornOn = (steps: readonly Step[], hazard: DustHazard): readonly Step[] =>
  hazard === 'plain' ? steps : [...steps, ...doffed(hazard)];
