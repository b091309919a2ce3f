import { PartPhotoQuery } from '@/contracts/registers';
import { notThatWay } from '@/server/http/endpoint';
import { keepingPicture } from '@/server/http/picture-body';
import { keepPartPhoto } from '@/server/services/part-photo';

export const POST = keepingPicture({
  query: PartPhotoQuery,
  run: (context, _, sent) => keepPartPhoto(context, sent),
});
export const ALL = notThatWay;
