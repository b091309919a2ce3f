import { UndoSheetBody } from '@/contracts/sheet';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { undoSheet } from '@/server/services/take-in-sheet';

export const POST = recordingSite({ body: UndoSheetBody, run: undoSheet, reply: plainReply });
export const ALL = notThatWay;
