import { ToolBody } from '@/contracts/tools';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { keepTool } from '@/server/services/tools';

export const POST = recordingSite({ body: ToolBody, run: keepTool, reply: plainReply });
export const ALL = notThatWay;
