import type { Stage } from '../machine/machine';
import type { OpenedPart, RunState, Step } from './step';

/** The air at a stage: still, flowing through, drawn into the opening there, or drawn out of it by a second machine. */
export type AirHere = 'still' | 'through' | 'in' | 'out';

interface AirInput {
  readonly stages: readonly Pick<Stage, 'kind'>[];
  readonly run: RunState;
  readonly open: readonly OpenedPart[];
  /** Position of the stage that is worked at; null for the machine. */
  readonly at: number | null;
}

/** A head that is lifted off carries the stages behind the tank: the filters before the fan, or the fan alone. */
const headStart = (stages: AirInput['stages']): number => {
  const tank = stages.findIndex((s) => s.kind === 'bag' || s.kind === 'dropChamber' || s.kind === 'cyclone');
  return tank >= 0 ? tank + 1 : Math.max(0, stages.findIndex((s) => s.kind === 'inlet') + 1);
};

/**
 * Which way the air flows now along a machine's path, stage by stage, while it is worked at: still when it is off; drawn
 * in at what stands open when it runs; only through the head when that is set aside, which does not clean the tank.
 * Source: common practice, no published source.
 */
export const airNow = ({ stages, run, open, at }: AirInput): readonly AirHere[] => {
  const opened = open.some((o) => o !== 'inlet');
  const inlet = stages.findIndex((s) => s.kind === 'inlet');
  if (run === 'off') return stages.map(() => 'still');
  if (run === 'headAside' || run === 'secondVacuum') {
    const head = headStart(stages);
    return stages.map((_, i) =>
      i > head ? 'through' : i === head ? 'in' : run === 'secondVacuum' && i === head - 1 ? 'out' : 'still',
    );
  }
  const entry = opened ? (at ?? inlet) : open.includes('inlet') ? inlet : -1;
  return stages.map((_, i) => (i < entry ? 'still' : i === entry ? 'in' : 'through'));
};

/** With two people one keeps clean hands: parts, switches, plugs, labels; the other works where the dust is. */
export const handsOf = ({ dusty, check, key }: Step): 'clean' | 'dirty' =>
  dusty || (check !== undefined && key === 'check') || key === 'fitNew' || key === 'tightenFixings' ? 'dirty' : 'clean';
