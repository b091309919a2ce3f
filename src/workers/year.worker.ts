import { type YearReply, YearRequest } from '@/contracts/plan';
import { yearAhead } from '@/core/plan/year';

/** The year ahead, gone through off the page. */
self.onmessage = (event: MessageEvent<unknown>) => {
  const request = YearRequest.safeParse(event.data);
  if (!request.success) return;
  const reply: YearReply = yearAhead(request.data.input, request.data.options);
  self.postMessage(reply);
};
