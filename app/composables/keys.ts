import { matchKeyBindingPress, parseKeybinding } from 'tinykeys'
import { useMe } from '~/stores/me'

export interface KeyBinding {
  /** As tinykeys writes them: `g h`, `$mod+k`, `Alt+(Digit[1-9])`. */
  keys: string
  /** As they stand in the list of keys. */
  shown: string
  what: string
  act: (event: KeyboardEvent) => void
  /** Also while somebody types. */
  inFields?: boolean
  /** Whether they mean something now: else whatever else has them gets them. */
  when?: (event: KeyboardEvent) => boolean
  /** Before anything else on the page, which does not get them then. */
  first?: boolean
  /** Of no page: also while a call or a conversation lies over it and has the cursor. */
  everywhere?: boolean
}

const SCOPE: InjectionKey<() => boolean> = Symbol('keys')

/**
 * For what a page may hold several of: its keys, and those of whatever is in it, mean something while it is the one that is
 * worked with.
 */
export const scopeKeys = (isTheOne: () => boolean) => provide(SCOPE, isTheOne)

type Presses = ReturnType<typeof parseKeybinding>

interface Listening extends KeyBinding {
  presses: Presses
  /** Letters and signs alone: who speaks to the computer, or slips, would set them off; they can be switched off (WCAG 2.1.4). */
  bare: boolean
  isInScope: () => boolean
}

/** Every key that works now, for the list under `?`. */
export const activeKeys = shallowRef<KeyBinding[]>([])

/** For so long a sequence that has begun waits for its next key. */
const SEQUENCE_MS = 1_000
const MODIFIERS = new Set(['Shift', 'Control', 'Alt', 'AltGraph', 'Meta'])
/** Inputs that take no letters. */
const NO_TEXT = new Set(['checkbox', 'radio', 'button', 'submit', 'reset', 'file', 'range', 'color'])
/** Where letters choose or search, though nothing is typed into a field. */
const TAKES_LETTERS = '[role="combobox"], [role="listbox"], [role="menu"], [role="menubar"], [role="textbox"], [role="searchbox"], [role="spinbutton"]'

let listening: Listening[] = []
/** The sequences that have begun, how many of their keys have been pressed, and until when the next may come. */
let begun: { of: Listening[], pressed: number, until: number } | null = null

/**
 * Keys for as long as the component lives: the one way to listen to them, so that each is in the list, and each press
 * means one thing: what the component means by it that came last. Single letters work outside of fields only, and for
 * the page only while nothing lies over it that has the cursor.
 *
 * @example
 * useKeys([{ keys: 'c', shown: 'C', what: 'Make a new thing', act: make }])
 */
export function useKeys(bindings: KeyBinding[]): void {
  const isInScope = inject(SCOPE, () => true)
  const mine = bindings.map((binding) => {
    const presses = parseKeybinding(binding.keys)
    return { ...binding, presses, isInScope, bare: binding.keys !== 'Escape' && presses.every(([modifiers]) => modifiers.every(one => one === 'Shift')) }
  })
  onMounted(() => {
    if (listening.length === 0) {
      window.addEventListener('keydown', beforeThePage, { capture: true })
      window.addEventListener('keydown', afterThePage)
    }
    listening = [...listening, ...mine]
    activeKeys.value = [...activeKeys.value, ...bindings]
  })
  onBeforeUnmount(() => {
    listening = listening.filter(one => !mine.includes(one))
    activeKeys.value = activeKeys.value.filter(binding => !bindings.includes(binding))
    if (listening.length > 0) return
    window.removeEventListener('keydown', beforeThePage, { capture: true })
    window.removeEventListener('keydown', afterThePage)
  })
}

function beforeThePage(event: KeyboardEvent): void {
  if (isNoPress(event)) return
  if (begun && begun.until > Date.now() && !isMeantForElse(event)) return goOn(event)
  begun = null
  const binding = meant(event, true)
  if (binding) act(binding, event)
}

function afterThePage(event: KeyboardEvent): void {
  // what a field, a list or a dialog has made of the key is all that it means
  if (isNoPress(event) || event.defaultPrevented) return
  const sequences = listening.filter(one => one.presses.length > 1 && isMeant(one, event))
  const binding = sequences.length > 0 ? undefined : meant(event, false)
  if (binding) act(binding, event)
  else if (sequences.length > 0) begun = { of: sequences, pressed: 1, until: Date.now() + SEQUENCE_MS }
}

const isNoPress = (event: KeyboardEvent) => event.isComposing || event.repeat || MODIFIERS.has(event.key)

/** Whoever types, or holds another key, has left the sequence. */
const isMeantForElse = (event: KeyboardEvent) =>
  event.ctrlKey || event.altKey || event.metaKey || event.key.length > 1 || takesLetters(event)

/** A key within a sequence means nothing else, whether the sequence goes on with it or ends. */
function goOn(event: KeyboardEvent): void {
  const { of, pressed } = begun!
  const still = of.filter(one => matchKeyBindingPress(event, one.presses[pressed]!) && one.isInScope() && one.when?.(event) !== false)
  const whole = still.findLast(one => one.presses.length === pressed + 1)
  begun = whole || still.length === 0 ? null : { of: still, pressed: pressed + 1, until: Date.now() + SEQUENCE_MS }
  event.preventDefault()
  event.stopPropagation()
  whole?.act(event)
}

const meant = (event: KeyboardEvent, first: boolean) =>
  listening.findLast(one => one.presses.length === 1 && (one.first ?? false) === first && isMeant(one, event))

function isMeant(one: Listening, event: KeyboardEvent): boolean {
  if (!matchKeyBindingPress(event, one.presses[0]!) || !one.isInScope()) return false
  if (!one.inFields && takesLetters(event)) return false
  if (one.bare && !one.first && (isModal() || (!one.everywhere && isInDialog(event)))) return false
  if (one.bare && useMe().me?.singleKeys === false) return false
  return one.when?.(event) !== false
}

function act(binding: Listening, event: KeyboardEvent): void {
  event.preventDefault()
  if (binding.first) event.stopPropagation()
  binding.act(event)
}

/** Where the cursor really is, in whatever component: its letters are for that. */
function takesLetters(event: KeyboardEvent): boolean {
  const within = event.composedPath()[0]
  if (!(within instanceof HTMLElement)) return false
  if (within instanceof HTMLInputElement) return !NO_TEXT.has(within.type)
  return within.isContentEditable || /^(?:TEXTAREA|SELECT)$/.test(within.tagName) || within.closest(TAKES_LETTERS) !== null
}

/** One that is on its way out lies over nothing any more. */
const isModal = () => document.querySelector('[role="dialog"][aria-modal="true"]:not([class*="leave-active"])') !== null

const isInDialog = (event: KeyboardEvent) =>
  event.composedPath().some(one => one instanceof HTMLElement && one.getAttribute('role') === 'dialog')
