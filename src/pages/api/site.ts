import { SiteBody } from '@/contracts/site';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { keepSite } from '@/server/services/site-settings';

export const POST = recordingSite({ body: SiteBody, run: keepSite, reply: plainReply });
export const ALL = notThatWay;
