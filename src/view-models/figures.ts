import * as aerosol from '@/core/constants/aerosol';
import * as air from '@/core/constants/air';
import * as calibration from '@/core/constants/calibration';
import type { Constant } from '@/core/constants/constant';
import * as limits from '@/core/constants/limits';
import * as path from '@/core/constants/path';
import * as rig from '@/core/constants/rig';
import { FLOW_PER_WHEEL_INCH } from '@/core/measure/needs-of-use';
import { SCREENING_FIGURE } from '@/core/measure/penetration-ratio';

export interface FigureGroup {
  readonly title: string;
  readonly figures: readonly (Constant & { readonly name: string })[];
}

const isConstant = (value: unknown): value is Constant =>
  typeof value === 'object' && value !== null && 'value' in value && 'unit' in value && 'source' in value;

/** "BASELINE_WARN_LOSS" and "boreM" as words. */
const nameOf = (key: string): string => {
  const words = key
    .replaceAll('_', ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
};

const figuresIn = (of: object): FigureGroup['figures'] =>
  Object.entries(of).flatMap(([key, value]: [string, unknown]) =>
    isConstant(value)
      ? [{ name: nameOf(key), ...value }]
      : typeof value === 'object' && value !== null && Object.values(value).every(isConstant)
        ? Object.entries(value as Record<string, Constant>).map(([k, v]) => ({
            name: `${nameOf(key)}: ${nameOf(k).toLowerCase()}`,
            ...v,
          }))
        : [],
  );

/** Every figure of the engines that has a name, with its unit and its source. */
export const figureGroups = (): readonly FigureGroup[] => [
  { title: 'Limits', figures: [...figuresIn(limits), ...figuresIn({ FLOW_PER_WHEEL_INCH, SCREENING_FIGURE })] },
  { title: 'How well a rig is known', figures: figuresIn(rig) },
  { title: 'The air path', figures: figuresIn(path) },
  { title: 'Calibration', figures: figuresIn(calibration) },
  { title: 'Air', figures: figuresIn(air) },
  { title: 'Dust in a filter', figures: figuresIn(aerosol) },
];
