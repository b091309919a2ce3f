import { EditPathBody } from '@/contracts/machine-edit';
import { notThatWay, recording } from '@/server/http/endpoint';
import { editPath } from '@/server/services/edit-path';

export const POST = recording({ body: EditPathBody, run: editPath, reply: ({ id }) => ({ id, warnings: [] }) });
export const ALL = notThatWay;
