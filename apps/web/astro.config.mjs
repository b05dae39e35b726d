import react from '@astrojs/react';
import { defineConfig } from 'astro/config';

// every page is made when it is built: the server gives out files and runs nothing
export default defineConfig({
  output: 'static',
  outDir: './dist/client',
  integrations: [react()],
  devToolbar: { enabled: false },
  build: { inlineStylesheets: 'never' },
  vite: {
    build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 2500 },
    worker: { format: 'es' },
    optimizeDeps: { exclude: ['@lithagon/core', '@lithagon/kernels'] },
  },
});
