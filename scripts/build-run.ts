// Bundles the server start and the planner. Unbundled they would need a compiler in the running server, which costs
// memory and time at every import.
import { fileURLToPath } from 'node:url';
import { build } from 'vite';
import { sourceHash } from '../src/server/db/build-id';

await build({
  configFile: false,
  logLevel: 'warn',
  define: { MOORWIND_BUILD_ID: JSON.stringify(sourceHash(fileURLToPath(new URL('..', import.meta.url)))) },
  resolve: { alias: { '@': fileURLToPath(new URL('../src', import.meta.url)) } },
  // As in astro.config.mjs: packages of hundreds of small files would each want a file handle.
  ssr: { external: ['better-sqlite3'], noExternal: ['kysely', 'date-fns', '@date-fns/utc', 'zod'] },
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist/run',
    copyPublicDir: false,
    rollupOptions: {
      input: { serve: 'scripts/serve.ts', planner: 'src/server/planner/planner.ts' },
      output: { entryFileNames: '[name].mjs', chunkFileNames: 'chunks/[name]-[hash].mjs' },
    },
  },
});
