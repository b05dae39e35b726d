import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  build: { inlineStylesheets: 'never' },
  vite: {
    build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 2500 },
    worker: { format: 'es' },
    optimizeDeps: { exclude: ['@lithagon/core', '@lithagon/kernels'] },
  },
});
