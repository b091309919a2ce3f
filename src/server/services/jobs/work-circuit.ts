import type { WorkFigures } from '@/contracts/work';
import { type CircuitAnswer, judgeCircuit } from '@/core/for-work/circuit';
import type { WorkQuestion } from '@/core/for-work/question';
import type { Yard } from '../yard/yard';

/** Machine and tools on one circuit, by their plates; null without any. */
export const circuitOf = (figures: WorkFigures, { tools, hours }: WorkQuestion, yard: Yard): CircuitAnswer | null => {
  const { supply, breaker, machineA, toolA, socket, lead, section, generator } = figures;
  // The current of a tool alone needs no answer.
  if ([supply, breaker, machineA, lead, generator, socket].every((f) => f === null)) return null;
  const plate = (amps: number | null) => ({ amps, watts: null, powerFactor: null });
  return judgeCircuit({
    ruleSet: yard.site.ruleSet,
    supplyV: supply ?? (yard.site.ruleSet === 'us' ? 120 : 230),
    breakerA: breaker,
    machine: plate(machineA),
    tool: plate(toolA === null ? null : toolA * tools),
    socketW: socket,
    throughMachine: socket !== null,
    lead: lead === null || section === null ? null : { lengthM: lead, sectionMm2: section },
    hours,
    generatorVA: generator,
  });
};
