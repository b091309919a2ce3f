import { MergeBody } from '@/contracts/registers';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { mergeParts } from '@/server/services/merge-parts';

export const POST = recordingSite({ body: MergeBody, run: mergeParts, reply: plainReply });
export const ALL = notThatWay;
