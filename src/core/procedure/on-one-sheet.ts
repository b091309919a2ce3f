import type { DustHazard } from '../dust/level';
import type { Procedure } from './step';

/**
 * Whether a job may be written down on one sheet after it is done. Contained dust, a filter that is screened afterwards,
 * and a decontamination are walked step by step. Source: common practice, no published source.
 */
export const onOneSheet = ({ id, integrity }: Procedure, hazard: DustHazard): boolean =>
  hazard !== 'contained' && integrity.length === 0 && id !== 'decontamination';
