import { UpgradeActionBody } from '@/contracts/upgrade';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { actOnUpgrade } from '@/server/services/upgrades';

export const POST = recording({ body: UpgradeActionBody, run: actOnUpgrade, reply: plainReply });
export const ALL = notThatWay;
