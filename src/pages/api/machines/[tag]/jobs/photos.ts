import { PhotoQuery } from '@/contracts/job';
import { notThatWay } from '@/server/http/endpoint';
import { keepingPicture } from '@/server/http/picture-body';
import { keepPhoto } from '@/server/services/job-photo';

export const POST = keepingPicture({ query: PhotoQuery, run: keepPhoto });
export const ALL = notThatWay;
