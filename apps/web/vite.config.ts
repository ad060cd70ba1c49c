import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const source = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  plugins: [react()],
  resolve: {
    alias: {
      '@mailbag/core/words': source('../../packages/core/src/words/words.ts'),
      '@mailbag/core': source('../../packages/core/src/index.ts'),
    },
  },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': 'http://127.0.0.1:4180', '/post-office': 'http://127.0.0.1:4180' } },
});
