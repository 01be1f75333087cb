import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const source = (name: string): string => fileURLToPath(new URL(`../${name}/src/index.ts`, import.meta.url));

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { alias: { '@wanderon/core': source('core'), '@wanderon/contract': source('contract') } },
  build: {
    chunkSizeWarningLimit: 1500,
    // What every page begins with is one file: each file more is a question more before anything is drawn.
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'program', tags: ['$initial'] }] } } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
});
