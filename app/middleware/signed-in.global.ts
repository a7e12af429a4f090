import { useMe } from '~/stores/me'

/** Where somebody goes who is from outside and helps. */
const FOR_HELPERS = ['/set-up', '/sign-ins', '/format']

/** Pages are for people who are signed in; after signing in one is where one wanted to go. */
export default defineNuxtRouteMiddleware(async (to) => {
  // whoever begins or joins is nobody yet
  if (to.path === '/begin' || to.path === '/join') return
  const store = useMe()
  const me = store.me ?? await store.load()
  if (!me && to.path !== '/sign-in') return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (me && to.path === '/sign-in') return navigateTo('/')
  if (me?.role === 'helper' && !FOR_HELPERS.some(place => to.path === place || to.path.startsWith(`${place}/`))) return navigateTo('/set-up')
})
