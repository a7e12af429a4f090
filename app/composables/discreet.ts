import { useLocalStorage } from '@vueuse/core'

/**
 * Whether names, numbers and words are hidden, while somebody else looks at the screen: on every page and in every tab of this
 * browser, and after a reload, until it is switched off again. What hides them is app/theme/discreet.css.
 */
export const useDiscreet = () => useLocalStorage('plauder-discreet', false)
