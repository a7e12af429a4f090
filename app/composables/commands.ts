import { MODULE_FACTS, MODULES } from '~~/shared/modules'
import { useMe } from '~/stores/me'
import { activeKeys } from './keys'

/** Something to do by name, from the field in the header. */
export interface Command { what: string, shown?: string, act: () => void }

/** The places one can go to, what can be made, and every key that works on this page. */
export function commandsNow(): Command[] {
  const go = (what: string, to: string): Command => ({ what, act: () => void navigateTo(to) })
  return [
    ...activeKeys.value
      .filter(({ when }) => !when)
      .map(({ what, shown, act }) => ({ what, shown, act: () => act(new KeyboardEvent('keydown')) })),
    ...MODULES.map(module => go(`Go to ${MODULE_FACTS[module].many.toLowerCase()}`, `/records/${MODULE_FACTS[module].slug}`)),
    ...MODULES.map(module => go(`Make a new ${MODULE_FACTS[module].one.toLowerCase()}`, `/records/${MODULE_FACTS[module].slug}/new`)),
    ...MODULES.map(module =>
      go(`Import a file of ${MODULE_FACTS[module].many.toLowerCase()}`, `/records/${MODULE_FACTS[module].slug}/import`),
    ),
    go('Go to the pipelines of deals', '/pipelines'),
    go('Go to the call rounds', '/calling'),
    go('Go to the spoken messages', '/calling/spoken'),
    go('Go to how I call', '/calling/how'),
    go('Go to the templates', '/templates'),
    ...(useMe().may('disposition.edit') ? [go('Go to the dispositions', '/set-up/dispositions')] : []),
    ...(useMe().me?.role === 'admin'
      ? [
          go('Go to the custom fields', '/set-up/fields'),
          go('Go to the making of pipelines', '/set-up/pipelines'),
          go('Go to the lines', '/set-up/lines'),
          go('Go to the rules of the house', '/set-up/rules'),
        ]
      : []),
    { what: 'Sign out', act: () => void useMe().signOut() },
  ]
}

/** Commands that have every word, each once. */
export function commandsWith(words: string, most = 4): Command[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean)
  const seen = new Set<string>()
  return commandsNow().filter(({ what }) => {
    const fits = all.every(word => what.toLowerCase().split(/\s+/).some(part => part.startsWith(word)))
    return fits && !seen.has(what) && seen.add(what)
  }).slice(0, most)
}
