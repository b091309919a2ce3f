import { type FindReply, FindRequest } from '@/contracts/find';
import type { Case } from '@/core/diagnose/posterior';
import { answerFind, openHeld, workAhead } from './answer-find';

let held: Case | null = null;

const tell = (reply: FindReply): void => self.postMessage(reply);

self.onmessage = (event: MessageEvent<unknown>) => {
  const request = FindRequest.safeParse(event.data);
  if (!request.success) return;
  if (request.data.ask === 'open') {
    held = openHeld(request.data);
    return;
  }
  const reply = answerFind(held, request.data, tell);
  tell(reply);
  workAhead(held, request.data, reply);
};
