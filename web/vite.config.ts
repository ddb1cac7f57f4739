import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    // Fonts stay files: the content security policy allows no data: addresses.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8737', changeOrigin: true } } },
});
