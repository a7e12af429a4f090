import { COMPONENTS } from './app/theme/components'

/**
 * Each icon brings its drawing in six weights, of which two are used: the conditions of the others are made false, and so
 * the build leaves their drawings out.
 */
const usedIconWeights = {
  name: 'used-icon-weights',
  transform: (code: string, id: string) => id.includes('@phosphor-icons/vue/dist/icons/')
    ? { code: code.replaceAll(/\w+\.value === "(?:bold|duotone|light|thin)"/g, 'false'), map: null }
    : undefined,
}

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@primevue/nuxt-module', 'nuxt-security', '@nuxt/eslint'],
  // everything is behind a sign-in and live: there is nothing to render before the browser knows who asks
  ssr: false,
  // what a file uses of ours stands in its imports; only Vue's and Nuxt's own words are at hand everywhere
  imports: { scan: false },
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Plauder',
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }, { name: 'color-scheme', content: 'light dark' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  css: [
    '~/theme/overlays.css',
    '@fontsource-variable/bricolage-grotesque/index.css',
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '~/theme/base.css',
    '~/theme/discreet.css',
  ],
  sourcemap: { server: false, client: false },
  experimental: { appManifest: false },
  compatibilityDate: '2026-01-01',
  nitro: {
    // the embedded database and what it needs lie in node_modules; only its thread loads it
    externals: { external: ['@electric-sql/pglite'] },
    logLevel: 2,
    typescript: { tsConfig: { include: ['../types'] } },
  },
  vite: {
    plugins: [usedIconWeights],
    // a request costs more than a few kilobytes that a page does not need at once
    $client: { build: { rollupOptions: { output: { experimentalMinChunkSize: 20_000 } } } },
  },
  // the emoji's own element
  vue: { compilerOptions: { isCustomElement: tag => tag === 'emoji-picker' } },
  telemetry: false,
  typescript: { strict: true, tsConfig: { include: ['../types'], compilerOptions: { noUncheckedIndexedAccess: true } } },
  eslint: { config: { stylistic: true } },
  primevue: {
    importTheme: { from: '~~/app/theme/preset.ts' },
    components: { include: [...COMPONENTS] },
    directives: { include: [] },
  },
  security: {
    rateLimiter: false, // sign-in has its own; the others are for people who are known
    xssValidator: false, // refuses "a < b"; words are shown as text everywhere
    corsHandler: false, // would allow every origin
    requestSizeLimiter: false, // each route has its own limit
    headers: {
      strictTransportSecurity: false, // set where TLS ends
      crossOriginEmbedderPolicy: false,
      // messages for mailboxes are spoken here
      permissionsPolicy: { microphone: ['self'] },
      contentSecurityPolicy: {
        'default-src': ['\'self\''],
        'base-uri': ['\'none\''],
        'font-src': ['\'self\''],
        'img-src': ['\'self\'', 'data:'],
        'media-src': ['\'self\'', 'blob:', 'data:'],
        'connect-src': ['\'self\''],
        'worker-src': ['\'self\''],
        'object-src': ['\'none\''],
        'script-src-attr': ['\'none\''],
        'style-src': ['\'self\'', '\'unsafe-inline\''],
        'script-src': ['\'self\'', '\'strict-dynamic\'', '\'nonce-{{nonce}}\''],
        'upgrade-insecure-requests': false,
      },
    },
  },
})
