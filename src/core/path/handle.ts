import type { ModelStage } from './machine-path';

/** The adjustable parameter of one stage, by its resistance law. */
export type Handle = 'load' | 'block' | 'drive' | 'none';

/** Whether a stage can be loaded with dust, blocked, or driven otherwise. */
export const handleOf = (stage: ModelStage): Handle => {
  switch (stage.spec.air.form) {
    case 'medium':
      return 'load';
    case 'line':
    case 'nozzle':
    case 'fitting':
    case 'cyclone':
    case 'wye':
      return 'block';
    case 'fan':
      return 'drive';
    case 'none':
      return 'none';
  }
};

/** A share of the opening blocked: an opening's loss goes with one over its area squared. Source: Bernoulli. Valid: 0 to below 1. */
export const blockFactorOf = (share: number): number => 1 / (1 - share) ** 2;

/** Load in Pa s/m3 on the scale of a fan's lift over its free flow: half of it at 0.5. Valid: 0 to below 1. Choice: a Moorwind default, a modelling choice of scale. */
export const loadOfShare = (
  share: number,
  { p0Pa, qMaxM3s }: { readonly p0Pa: number; readonly qMaxM3s: number },
): number => ((p0Pa / qMaxM3s) * share) / (1 - share);
