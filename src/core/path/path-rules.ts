import { MEDIA } from '../constants/media';
import { at, fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { checkRating } from '../filter/rating';
import { sidesOfPath } from './path-places';
import { checkElement } from './model/check-element';
import { airPathOf, type MachineModel, type ModelStage, type PathParameters } from './machine-path';
import { REFERENCE_AIR } from './model/air';
import { NOMINAL_DRIVE } from './model/fan';
import { checkPath } from './model/path';
import { templateParameters } from './pressure-profile';
import { STAGE_KINDS, type StageKind } from './stage-kinds';

/** More than any machine has, and what a strip can still show. */
const MOST_STAGES = 16;

const finerFirst = (stages: readonly ModelStage[], fan: number): readonly Failure[] => {
  // Behind the fan another train may begin (an exhaust filter), so the order holds on each side of it.
  for (const side of [stages.slice(0, fan), stages.slice(fan + 1)]) {
    const hepa = side.find((s) => s.kind === 'hepa');
    const after = hepa
      ? side.slice(side.indexOf(hepa) + 1).find((s) => (STAGE_KINDS[s.kind].fineness ?? 9) < 5)
      : undefined;
    if (hepa && after)
      return [failure('path.hepa-first', `stages.${stages.indexOf(hepa)}`, { fine: hepa.name, coarse: after.name })];
  }
  return [];
};

const gasFirst = (stages: readonly ModelStage[]): readonly Failure[] => {
  const gas = stages.findIndex((s) => s.kind === 'gas');
  const filter =
    gas < 0
      ? undefined
      : stages.slice(gas + 1).find((s) => s.kind === 'hepa' || s.kind === 'mainFilter' || s.kind === 'prefilter');
  return filter
    ? [failure('path.gas-first', `stages.${gas}`, { gas: stages[gas]?.name ?? '', filter: filter.name })]
    : [];
};

const paperInWet = (stages: readonly ModelStage[], wet: boolean): readonly Failure[] => {
  if (!wet) return [];
  return stages.flatMap((s, i) => {
    const { air } = s.spec;
    return air.form === 'medium' && !s.missing && MEDIA[air.medium].dryOnly
      ? [failure('path.paper-wet', `stages.${i}`, { stage: s.name, medium: MEDIA[air.medium].label })]
      : [];
  });
};

const MOUTHS: readonly StageKind[] = ['nozzle', 'shroud', 'hood'];

const ends = (stages: readonly ModelStage[], fan: number): readonly Failure[] =>
  stages.flatMap((s, i): readonly Failure[] => {
    if (MOUTHS.includes(s.kind) && i > 0) return [failure('path.mouth-late', `stages.${i}`, { stage: s.name })];
    if (s.kind === 'wye' && i === 0) return [failure('path.wye-first', `stages.${i}`)];
    return (s.kind === 'exhaust' || s.kind === 'exhaustFilter') && i < fan
      ? [failure('path.exhaust-early', `stages.${i}`, { stage: s.name })]
      : [];
  });

const sameNames = (stages: readonly ModelStage[]): readonly Failure[] => {
  const doubled = stages.findIndex(
    (s, i) => stages.findIndex((x) => x.name.trim().toLowerCase() === s.name.trim().toLowerCase()) < i,
  );
  return doubled < 0 ? [] : [failure('stage.name', `stages.${doubled}.name`)];
};

/** A rating that cannot be meant is explained, not stored. */
const ratings = (stages: readonly ModelStage[]): readonly Failure[] =>
  stages.flatMap((s, i) => {
    const checked = at(`stages.${i}.spec.fit`, checkRating(s.spec.fit.rating));
    return checked.ok ? [] : checked.failures;
  });

const whole = (model: MachineModel, parameters: PathParameters): readonly Failure[] => {
  const path = airPathOf(model, parameters, {
    stages: {},
    leaksM2: {},
    hose: null,
    drive: NOMINAL_DRIVE,
    air: REFERENCE_AIR,
  });
  if (!path.ok) return path.failures;
  const elements = path.value.trunk.elements.map((e, i) => at(`stages.${i}`, checkElement(e)));
  const checks = [...elements, checkPath(path.value)];
  return checks.flatMap((c) => (c.ok ? [] : c.failures));
};

/**
 * Whether a machine's air path can be: one fan, coarse before fine, gas stage behind the filters, no paper in a wet
 * set, tool first and exhaust last, and every stage one the model can solve. Returns each thing wrong, with its stage.
 * Source: common practice, no published source.
 */
export const checkMachinePath = (model: MachineModel, { wet }: { readonly wet: boolean }): Result<true> => {
  const { stages } = model;
  const sides = sidesOfPath(stages.map((s) => s.kind));
  if (!sides.ok) return sides;
  if (stages.length > MOST_STAGES)
    return fail(failure('path.too-long', 'stages', { have: stages.length, most: MOST_STAGES }));
  const fan = stages.findIndex((s) => s.kind === 'fan');
  const failures = [
    ...finerFirst(stages, fan),
    ...gasFirst(stages),
    ...paperInWet(stages, wet),
    ...ends(stages, fan),
    ...sameNames(stages),
    ...ratings(stages),
  ];
  const physical = failures.length > 0 ? [] : whole(model, templateParameters(model, 0));
  return failures.length + physical.length > 0 ? fail(...failures, ...physical) : ok(true);
};
