import { STAGE_KINDS, type DustPlace } from '../path/stage-kinds';
import { essentialStage, type PathStage } from './essential';
import type { MachineKind } from './kinds';
import { MACHINE_KINDS, type Vessel } from './kinds';

/** One place of a machine that holds dust after use. */
export type DustPart =
  | { readonly at: 'stage'; readonly stage: number; readonly place: Exclude<DustPlace, 'cleanSide'> }
  | { readonly at: 'vessel'; readonly vessel: Vessel };

export interface DustyMachine {
  readonly kind: MachineKind;
  readonly stages: readonly (PathStage & { readonly doNotRemove: boolean })[];
}

/**
 * Every place of a machine that holds dust after use, tool to room: parts that come out, the hose, walls that are cleaned
 * where they are, and the space around. A part that must stay in is cleaned in its place. A fan before the last filter is
 * on the dirty side. A missing stage holds none; its seat is part of the space around. Source: handbook of the trade,
 * section 20; common practice, no published source.
 */
export const dustParts = ({ kind, stages }: DustyMachine): readonly DustPart[] => {
  const last = essentialStage(stages);
  return [
    ...stages.flatMap((s, stage): readonly DustPart[] => {
      if (s.missing) return [];
      const { dust } = STAGE_KINDS[s.kind];
      if (dust === 'cleanSide') return stage < last || last < 0 ? [{ at: 'stage', stage, place: 'inside' }] : [];
      return [{ at: 'stage', stage, place: dust === 'part' && s.doNotRemove ? 'inside' : dust }];
    }),
    { at: 'vessel', vessel: MACHINE_KINDS[kind].vessel },
  ];
};
