import type { RuleSet } from '../dust/dust';
import { RULE_TEMPLATES, type RuleTemplate } from '../interval/rule-templates';
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

/** The schools a new stage begins with, by their place in its templates: those that need no light and no gauge. */
const USUAL: Readonly<Record<StageKind, readonly number[]>> = {
  nozzle: [],
  shroud: [],
  hood: [],
  hose: [],
  wye: [],
  duct: [],
  inlet: [],
  ring: [],
  fan: [],
  muffler: [],
  exhaust: [],
  bag: [0, 1],
  cyclone: [0, 1],
  dropChamber: [0, 1],
  prefilter: [2],
  mainFilter: [0, 3],
  hepa: [0],
  canister: [1, 2],
  cloth: [0, 1],
  foam: [0, 1],
  gas: [0, 1],
  exhaustFilter: [0],
};

/**
 * The rules proposed for a stage of a new machine; none for a stage that is not replaced. Somebody may take them all out:
 * then it is never due by itself, because somebody chose so. Source: common practice, no published source; the
 * examination of exhaust ventilation at least every 14 months: UK COSHH Regulations 2002, regulation 9.
 */
export const usualRules = (stage: StageKind, of: RuleOf): readonly RuleTemplate[] => {
  const templates = RULE_TEMPLATES[stage];
  if (stage === 'fan') {
    const [coshh, makers] = templates;
    const classed = of.machineClass === 'M' || of.machineClass === 'H';
    const examined = of.ruleSet === 'eu_uk' && (classed || MACHINE_KINDS[of.kind].exhaustVentilation);
    return [examined ? coshh : undefined, classed ? makers : undefined].filter((t) => t !== undefined);
  }
  const usual = USUAL[stage].flatMap((i) => templates[i] ?? []);
  const byGauge = templates.find((t) => t.rule.kind === 'gaugeZone' && t.rule.zone === 'red');
  return of.hasGauge && byGauge ? [byGauge, ...usual] : usual;
};
