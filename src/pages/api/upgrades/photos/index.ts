import { UpgradePhotoQuery } from '@/contracts/upgrade';
import { notThatWay } from '@/server/http/endpoint';
import { keepingPicture } from '@/server/http/picture-body';
import { keepUpgradePhoto } from '@/server/services/upgrade-photo';

export const POST = keepingPicture({
  query: UpgradePhotoQuery,
  run: (context, _, sent) => keepUpgradePhoto(context, sent),
});
export const ALL = notThatWay;
