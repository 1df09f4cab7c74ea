import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'
import { compression } from 'vite-plugin-compression2'
import { chunkName } from './chunkName.ts'

const packages = (names: string) => new RegExp(`[\\\\/]node_modules[\\\\/](${names})[\\\\/]`)

/** The component library's styles and ours for all pages are named first: what a page's own say comes after, and holds. */
const stylesFirst: Plugin = {
  name: 'styles-first',
  transformIndexHtml: {
    order: 'post',
    handler: (html) => {
      const [link = ''] = /[ \t]*<link rel="stylesheet"[^>]*\/styles-[^>]*>\n/.exec(html) ?? []
      return html.replace(link, '').replace(/[ \t]*<link rel="stylesheet"/, `${link}$&`)
    },
  },
}

export default defineConfig({
  plugins: [
    react(),
    stylesFirst,
    compression({ algorithms: ['brotliCompress', 'gzip'], threshold: 1024, include: /\.(js|css|html|svg)$/ }),
  ],
  worker: { format: 'es' },
  build: {
    // The charts are the one large part; they come when one is first shown.
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        chunkFileNames: (chunk) => `assets/${chunkName(chunk)}-[hash].js`,
        codeSplitting: {
          groups: [
            { name: 'styles', test: /\.css$/, tags: ['$initial'], priority: 60 },
            // Of the parts, and of the surfaces, together: each alone is a crumb.
            { name: 'parts', test: /web[\\/]src[\\/](?!surfaces|places).*\.css$/, priority: 55 },
            { name: 'surfaces', test: /web[\\/]src[\\/].*\.css$/, priority: 50 },
            {
              name: 'react',
              test: packages('react|react-dom|scheduler|react-router|@tanstack/(react-query|query-core)'),
              tags: ['$initial'],
              priority: 40,
            },
            { name: 'components', test: packages('@mantine|@floating-ui|clsx'), tags: ['$initial'], priority: 30 },
            { name: 'days', test: /@mantine[\\/]dates[\\/].*\.css$/, priority: 58 },
            // What only charts ask for comes with them: alone it is a crumb.
            {
              name: 'charts',
              test: /[\\/](node_modules[\\/](echarts|zrender)[\\/]|web[\\/]src[\\/]parts[\\/]fitChart)/,
              priority: 20,
            },
            // What nearly every surface needs comes with the first page; what a few share comes with the first of them.
            { name: 'common', minShareCount: 12, priority: 10 },
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 20_000, priority: 1 },
          ],
        },
      },
    },
  },
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': { target: 'http://127.0.0.1:4173', changeOrigin: true } } },
})
