import { definePreset } from '@primeuix/themes'
import { TOKENS } from './tokens'

/**
 * Plauder's roles of colour, as PrimeVue's tokens. The values themselves stand once, in base.css; here
 * they are given to the components.
 */
const roles = {
  primary: {
    color: 'var(--accent)',
    contrastColor: 'var(--on-accent)',
    hoverColor: 'var(--accent-deep)',
    activeColor: 'var(--accent-deep)',
  },
  highlight: {
    background: 'var(--accent-ground)',
    focusBackground: 'var(--accent-ground)',
    color: 'var(--accent)',
    focusColor: 'var(--accent)',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--quiet)', hoverMutedColor: 'var(--quiet)' },
  content: {
    background: 'var(--surface)',
    hoverBackground: 'var(--hover)',
    borderColor: 'var(--rule)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  formField: {
    background: 'var(--surface)',
    filledBackground: 'var(--surface)',
    disabledBackground: 'var(--paper)',
    borderColor: 'var(--field-rule)',
    hoverBorderColor: 'var(--quiet)',
    focusBorderColor: 'var(--accent)',
    invalidBorderColor: 'var(--wrong)',
    color: 'var(--ink)',
    placeholderColor: 'var(--quiet)',
    invalidPlaceholderColor: 'var(--quiet)',
    iconColor: 'var(--quiet)',
    shadow: 'none',
  },
  overlay: {
    select: { background: 'var(--surface)', borderColor: 'var(--field-rule)', color: 'var(--ink)' },
    popover: { background: 'var(--surface)', borderColor: 'var(--field-rule)', color: 'var(--ink)' },
    modal: { background: 'var(--surface)', borderColor: 'var(--field-rule)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--hover)',
      selectedBackground: 'var(--accent-ground)',
      selectedFocusBackground: 'var(--accent-ground)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--accent)',
      selectedFocusColor: 'var(--accent)',
    },
  },
  mask: { background: 'rgb(35 31 43 / 0.35)', color: 'var(--ink)' },
}

const DROPDOWN = {
  background: 'var(--surface)',
  hoverBackground: 'var(--hover)',
  activeBackground: 'var(--hover)',
  borderColor: 'var(--field-rule)',
  hoverBorderColor: 'var(--field-rule)',
  activeBorderColor: 'var(--field-rule)',
  color: 'var(--quiet)',
  hoverColor: 'var(--ink)',
  activeColor: 'var(--ink)',
}

/** What can be done besides: as quiet as a field. */
const SECONDARY = {
  background: 'var(--surface)',
  hoverBackground: 'var(--hover)',
  activeBackground: 'var(--hover)',
  borderColor: 'var(--field-rule)',
  hoverBorderColor: 'var(--quiet)',
  activeBorderColor: 'var(--quiet)',
  color: 'var(--ink)',
  hoverColor: 'var(--ink)',
  activeColor: 'var(--ink)',
}

const preset = definePreset(TOKENS, {
  primitive: { borderRadius: { none: '0', xs: '3px', sm: '4px', md: '6px', lg: '6px', xl: '8px' } },
  semantic: {
    transitionDuration: '0.12s',
    focusRing: { width: '2px', style: 'solid', color: 'var(--accent)', offset: '2px' },
    formField: {
      paddingX: '0.65rem',
      paddingY: '0.45rem',
      borderRadius: '6px',
      focusRing: { width: '2px', style: 'solid', color: 'var(--accent)', offset: '0', shadow: 'none' },
    },
    colorScheme: { light: roles, dark: roles },
  },
  components: {
    button: { colorScheme: { light: { root: { secondary: SECONDARY } }, dark: { root: { secondary: SECONDARY } } } },
    autocomplete: { colorScheme: { light: { dropdown: DROPDOWN }, dark: { dropdown: DROPDOWN } } },
  },
})

export default { preset, options: { darkModeSelector: 'media', cssLayer: { name: 'primevue', order: 'primevue, plauder' } } }
