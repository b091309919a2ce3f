import type { RuleSet } from '../dust/dust';
import { type Proposed, RULE_TEMPLATES, type RuleTemplate } from '../interval/rule-templates';
import type { StageKind } from '../path/stage-kinds';
import { MACHINE_KINDS, type MachineKind } from './kinds';
import type { MachineClass } from './machine';

/** Facts that decide the usual rules of a stage besides its kind. */
export interface RuleOf {
  readonly kind: MachineKind;
  readonly machineClass: MachineClass | null;
  readonly ruleSet: RuleSet;
  readonly hasGauge: boolean;
}

/** Whether a template is proposed for a new stage. */
const isProposed = (proposed: Proposed, of: RuleOf): boolean => {
  const classed = of.machineClass === 'M' || of.machineClass === 'H';
  switch (proposed) {
    case 'usual':
      return true;
    case 'withGauge':
      return of.hasGauge;
    case 'exhaustVentilation':
      return of.ruleSet === 'eu_uk' && (classed || MACHINE_KINDS[of.kind].exhaustVentilation);
    case 'classed':
      return classed;
    case 'choice':
      return false;
  }
};

/**
 * The rules proposed for a stage of a new machine, by the mark of each template; none for a stage that is not replaced. A
 * person may remove all of them: then the stage is never due by itself. Source: common practice, no published source; the
 * examination of exhaust ventilation at least every 14 months: UK COSHH Regulations 2002, regulation 9.
 */
export const usualRules = (stage: StageKind, of: RuleOf): readonly RuleTemplate[] =>
  RULE_TEMPLATES[stage]
    .filter(({ proposed }) => isProposed(proposed, of))
    .map(({ rule, school }) => ({ rule, school }));
