import type { AirPathReply, AirPathRequest } from '@/contracts/air-path-messages';
import { failure } from '@/core/failure/failure';
import { pressureProfile } from '@/core/path/pressure-profile';

export type Held = Extract<AirPathRequest, { ask: 'model' }> | null;

/** The worker's answer: the staircase of the held machine, in the asked state. */
export const answerAirPath = (held: Held, { id, state }: Extract<AirPathRequest, { ask: 'solve' }>): AirPathReply => {
  if (!held) return { kind: 'failed', id, failures: [failure('path.empty')] };
  const solved = pressureProfile({ model: held.model, parameters: held.parameters, state });
  if (!solved.ok)
    return { kind: 'failed', id, failures: solved.failures.map((f) => ({ ...f, facts: { ...f.facts } })) };
  const { steps, nodesPa, inflowsM3s, flowsAtToolsM3s } = solved.value;
  return {
    kind: 'solved',
    id,
    stairs: {
      ...solved.value,
      steps: [...steps],
      nodesPa: [...nodesPa],
      inflowsM3s: [...inflowsM3s],
      flowsAtToolsM3s: [...flowsAtToolsM3s],
    },
  };
};
