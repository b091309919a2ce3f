import { InstrumentBody } from '@/contracts/registers';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { keepInstrument } from '@/server/services/registers';

export const POST = recordingSite({ body: InstrumentBody, run: keepInstrument, reply: plainReply });
export const ALL = notThatWay;
