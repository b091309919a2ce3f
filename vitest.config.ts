import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['tests/**/*.test.ts'],
          exclude: ['tests/e2e/**'],
          // One for each core: by itself vitest keeps one free.
          maxWorkers: 2,
          // Files of one worker share what they have loaded: no test replaces a module.
          isolate: false,
          // A limit is there to end a test that hangs, not to time one: a machine five times slower keeps it.
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          // Each file has a server and a browser of its own; most of its time it waits for them.
          fileParallelism: true,
          maxWorkers: 2,
          // A poll waits as long as a machine five times slower takes to draw a page.
          expect: { poll: { timeout: 10_000 } },
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
});
