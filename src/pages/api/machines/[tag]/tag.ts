import { RetagBody } from '@/contracts/machine-edit';
import { notThatWay, recording } from '@/server/http/endpoint';
import { correctTag } from '@/server/services/edit-path';

export const POST = recording({ body: RetagBody, run: correctTag, reply: ({ id }) => ({ id, warnings: [] }) });
export const ALL = notThatWay;
