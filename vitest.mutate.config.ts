import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** What judges a mutant: the tests of the core and of the services. The benches and the architecture take too long, and say nothing of a formula. */
export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: [process.env['MUTATE_TESTS'] ?? 'tests/{core,server}/**/*.test.ts'],
    testTimeout: 60_000,
  },
});
