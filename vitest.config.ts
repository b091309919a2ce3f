import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: { name: 'unit', include: ['tests/**/*.test.ts'], exclude: ['tests/e2e/**'] },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          // Each file has a server and a browser of its own; most of its time it waits for them.
          fileParallelism: true,
          maxWorkers: 2,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
