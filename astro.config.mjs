import { fileURLToPath } from 'node:url';
import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, passthroughImageService } from 'astro/config';
import { sourceHash } from './src/server/db/build-id.ts';

/** Scripts that get a file of their own, by the name of the file. The interop of CommonJS goes with no library. */
const CHUNKS = [
  ['interop', /commonjsHelpers/],
  ['zod', /\/node_modules\/zod\//],
  ['stats', /\/node_modules\/@stdlib\//],
  ['units', /\/src\/core\/units\//],
  ['words', /\/src\/messages\/(words|format)\.ts/],
  ['failure', /\/src\/core\/failure\//],
  ['failures', /\/src\/messages\/failure(s|-texts\/(?!no-answer))/],
];

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  // No pictures are transformed, so no native image library is needed.
  image: { service: passthroughImageService() },
  // Endpoints take application/json only, which no form of another site can send, and only under their own host name
  // (src/middleware.ts); the built-in check would answer in plain text instead of the problem shape.
  security: { checkOrigin: false },
  // Scripts and styles by their hash, everything from here, nothing framed. Charts and drawings set style attributes.
  experimental: {
    csp: {
      directives: [
        "default-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
        "img-src 'self' data: blob:",
        "worker-src 'self' blob:; style-src-attr 'unsafe-inline'",
      ],
    },
  },
  vite: {
    plugins: [tailwindcss()],
    define: { MOORWIND_BUILD_ID: JSON.stringify(sourceHash(fileURLToPath(new URL('.', import.meta.url)))) },
    // Said again here: a worker's own bundle does not read the paths of tsconfig.
    resolve: {
      alias: [
        { find: '@', replacement: fileURLToPath(new URL('./src', import.meta.url)) },
        {
          find: /^react-dom\/server$/,
          replacement: fileURLToPath(new URL('./scripts/react-server.ts', import.meta.url)),
        },
      ],
    },
    // Packages of hundreds of small files are bundled: each would want a file handle of its own as the server starts.
    ssr: { external: ['better-sqlite3'], noExternal: ['kysely', 'date-fns', '@date-fns/utc', 'zod'] },
    build: {
      rollupOptions: {
        output: {
          // Each by itself: put together with what every page needs, they would weigh on pages that do not need them.
          manualChunks: (id) => CHUNKS.find(([, part]) => part.test(id))?.[0],
        },
      },
    },
  },
});
