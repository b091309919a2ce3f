import { NewMachineBody } from '@/contracts/machine-edit';
import { notThatWay, recording } from '@/server/http/endpoint';
import { newMachine } from '@/server/services/edit-path';

export const POST = recording({
  body: NewMachineBody,
  run: (context, _tag, body) => newMachine(context, body),
  reply: ({ id }) => ({ id, warnings: [] }),
});
export const ALL = notThatWay;
