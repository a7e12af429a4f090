import { MODULE_FACTS, MODULES } from '~~/shared/modules'
import type { Permission } from '~~/shared/permissions'
import { useMe } from '~/stores/me'
import { activeKeys } from './keys'

/** Something to do by name, from the field in the header. */
export interface Command { what: string, shown?: string, act: () => void }

/** Rooms of Set-up, for those who may set up what is in them. */
const SET_UP: { what: string, to: string, needs: Permission }[] = [
  { what: 'Go to the dispositions', to: '/set-up/dispositions', needs: 'disposition.edit' },
  { what: 'Go to the custom fields', to: '/set-up/fields', needs: 'field.edit' },
  { what: 'Go to the making of pipelines', to: '/set-up/pipelines', needs: 'pipeline.edit' },
  { what: 'Go to the lines', to: '/set-up/lines', needs: 'line.edit' },
  { what: 'Go to the papers', to: '/set-up/papers', needs: 'carrier.edit' },
  { what: 'Go to the rules of the house', to: '/set-up/rules', needs: 'rules.edit' },
]

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
    ...SET_UP.filter(({ needs }) => useMe().may(needs)).map(({ what, to }) => go(what, to)),
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
