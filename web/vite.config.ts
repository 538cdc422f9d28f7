import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Where ./dev has the server; what is not a page is asked there. */
const behind = process.env.MELLOW_SERVER;

/** What a phone fetches for My day at most, packed, without the fonts. */
const MOST_OF_MY_DAY = 230_000;

/** Tells the service worker what My day needs, and holds that to its size. */
function myDay(): Plugin {
  return {
    name: 'my-day',
    apply: 'build',
    generateBundle(_, bundle) {
      const parts = new Set<string>();
      const add = (file: string) => {
        const part = bundle[file];
        if (part && !parts.has(file)) {
          parts.add(file);
          if (part.type === 'chunk') {
            part.imports.forEach(add);
            part.viteMetadata?.importedCss.forEach(add);
          }
        }
      };
      for (const part of Object.values(bundle)) {
        if (part.type === 'chunk' && (part.isEntry || part.name === 'MyDayPage')) {
          add(part.fileName);
        }
      }
      const packed = [...parts]
        .map((file) => bundle[file])
        .map((part) => gzipSync(part.type === 'chunk' ? part.code : part.source).length)
        .reduce((sum, size) => sum + size, 0);
      this.info(`My day is ${packed} bytes, packed`);
      if (packed > MOST_OF_MY_DAY) {
        this.error(`My day is ${packed} bytes, packed; at most ${MOST_OF_MY_DAY} are wanted`);
      }
      this.emitFile({
        type: 'asset',
        fileName: 'sw.js',
        source: readFileSync('sw.js', 'utf8').replace(
          'const PARTS = [];',
          `const PARTS = ${JSON.stringify([...parts].map((file) => `/${file}`))};`,
        ),
      });
    },
  };
}

export default defineConfig({
  plugins: [react(), myDay()],
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
    rolldownOptions: {
      checks: { circularDependency: true },
      onLog(level, log, tell) {
        if (log.code === 'CIRCULAR_DEPENDENCY') {
          throw new Error(log.message);
        }
        tell(level, log);
      },
    },
  },
});
