import tailwind from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { sharedWorkers } from './sharedWorkers.config.ts'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwind(), sharedWorkers()],
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 900 },
})
