import type { BundleScope } from '@/contracts/bundle';
import { bundleStream } from '../bundle/out';
import { app } from './app';

/** A bundle as a download, streamed. */
export const bundleReply = async (scope: BundleScope, name: string): Promise<Response> => {
  const { config } = await app();
  return new Response(bundleStream(config.dataFile, scope), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name.replace(/[^A-Za-z0-9.-]/g, '_')}"`,
      'cache-control': 'no-store',
    },
  });
};
