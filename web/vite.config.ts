import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  resolve: {
    alias: {
      '@': fileURLToPath(new URL('./src', import.meta.url)),
      // one table, which the server reads too
      '#countries': fileURLToPath(
        new URL('../src/dolmetsch/server/quantities/countries.json', import.meta.url),
      ),
    },
  },
  build: { target: 'es2022', manifest: 'files.json', chunkSizeWarningLimit: 700 },
  // a busy machine mounts slowly: no unit test is about how soon
  test: {
    environment: 'happy-dom',
    setupFiles: ['src/shared/tests/setup.ts'],
    restoreMocks: true,
    testTimeout: 30_000,
    // imports and a window for each file took four times what the tests do; who mocks a module has its own
    projects: [
      { extends: true, test: { name: 'together', isolate: false, include: ['src/**/!(*.apart).test.ts'] } },
      { extends: true, test: { name: 'apart', include: ['src/**/*.apart.test.ts'] } },
    ],
  },
})
