import type { StageAir } from '@/core/path/stage-spec';
import { type StageFieldProps } from './fields';

type Of<F extends StageAir['form']> = Extract<StageAir, { form: F }>;

/** The props of an air form. */
export interface AirProps<F extends StageAir['form']> extends StageFieldProps {
  readonly air: Of<F>;
  readonly set: (air: StageAir) => void;
  readonly onBad: (field: string, bad: boolean) => void;
}
