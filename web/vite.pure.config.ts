import { defineConfig } from 'vite';

/** What only computes, as one script for the tests. */
export default defineConfig({
  publicDir: false,
  define: { 'process.env.NODE_ENV': '"production"' },
  build: {
    outDir: '../.build/pure',
    emptyOutDir: true,
    lib: { entry: 'src/pure.ts', formats: ['iife'], name: 'pure', fileName: () => 'pure.js' },
  },
});
