import { type PlanReply, PlanRequest } from '@/contracts/plan';
import { seeded } from '@/core/numeric/seeded';
import { improvePlan } from '@/core/plan/planner';

/** Every plan on the way is posted; ending the worker stops it. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const request = PlanRequest.safeParse(event.data);
  if (!request.success) return;
  const { id, problem, rounds, seed } = request.data;
  const steps = improvePlan(problem, { random: seeded(seed).uniform, rounds });
  const tell = (reply: PlanReply): void => self.postMessage(reply);
  for (let step = steps.next(); ; step = steps.next()) {
    tell({ id, ...step.value, days: [...step.value.days], done: step.done === true });
    if (step.done) return;
  }
};
