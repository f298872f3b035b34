import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

// `server-only` throws outside a server bundle unless this condition is named.
const conditions = ['react-server', 'node', 'import', 'module', 'default'];
const common = {
  resolve: { conditions, alias: { '@': new URL('./src', import.meta.url).pathname } },
  ssr: { resolve: { conditions, externalConditions: conditions } },
};

export default defineConfig({
  ...common,
  test: {
    // One worker a core: by itself it leaves one core idle.
    maxWorkers: availableParallelism(),
    projects: [
      // Drawings are made by the renderer that the server condition leaves out.
      {
        resolve: { alias: common.resolve.alias },
        test: { name: 'drawn', include: ['tests/drawn/**/*.test.tsx'], environment: 'node', isolate: false, testTimeout: 60_000 },
      },
      {
        ...common,
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'src/**/*.test.tsx', 'tests/unit/**/*.test.ts'],
          environment: 'node',
          isolate: false,
          testTimeout: 60_000,
        },
      },
      {
        ...common,
        test: { name: 'db', include: ['tests/db/**/*.test.ts'], environment: 'node', testTimeout: 120_000, hookTimeout: 180_000 },
      },
    ],
  },
});
