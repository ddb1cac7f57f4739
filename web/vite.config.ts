import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: {
    // Fonts stay files: the content security policy allows no data: addresses.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  // A test reads the styles.
  test: { css: true },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8737', changeOrigin: true } } },
});
