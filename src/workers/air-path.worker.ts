import { AirPathRequest, type AirPathReply } from '@/contracts/air-path-messages';
import { answerAirPath, type Held } from './answer-air-path';

let held: Held = null;

self.onmessage = (event: MessageEvent<unknown>) => {
  const request = AirPathRequest.safeParse(event.data);
  if (!request.success) return;
  if (request.data.ask === 'model') {
    held = request.data;
    return;
  }
  const reply: AirPathReply = answerAirPath(held, request.data);
  self.postMessage(reply);
};
