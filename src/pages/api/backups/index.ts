import { TakeCopyBody } from '@/contracts/backup';
import { ok } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { backUp } from '@/server/services/backups';

export const POST = recordingSite({
  body: TakeCopyBody,
  run: async (context) => {
    const made = await backUp({ ...context, file: (await app()).config.dataFile }, 'asked');
    return made.ok ? ok({ id: 1 }) : made;
  },
  reply: plainReply,
});
export const ALL = notThatWay;
