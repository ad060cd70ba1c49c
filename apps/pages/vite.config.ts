import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const source = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  base: '/in/',
  plugins: [react()],
  resolve: {
    alias: {
      '@mailbag/core/intake': source('../../packages/core/src/intake/index.ts'),
      '@mailbag/look': source('../web/src/theme.ts'),
    },
  },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } },
});
