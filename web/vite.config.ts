import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** Where ./dev has the server; what is not a page is asked there. */
const behind = process.env.MELLOW_SERVER;

export default defineConfig({
  plugins: [react()],
  server: {
    proxy: behind
      ? Object.fromEntries(['/api', '/dav', '/feeds', '/.well-known'].map((path) => [path, behind]))
      : {},
  },
  build: {
    outDir: 'dist',
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 2000,
  },
});
