import autocomplete from '@primeuix/themes/aura/autocomplete'
import badge from '@primeuix/themes/aura/badge'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import chip from '@primeuix/themes/aura/chip'
import datepicker from '@primeuix/themes/aura/datepicker'
import dialog from '@primeuix/themes/aura/dialog'
import iconfield from '@primeuix/themes/aura/iconfield'
import inputtext from '@primeuix/themes/aura/inputtext'
import menu from '@primeuix/themes/aura/menu'
import popover from '@primeuix/themes/aura/popover'
import ripple from '@primeuix/themes/aura/ripple'
import select from '@primeuix/themes/aura/select'
import textarea from '@primeuix/themes/aura/textarea'
import toggleswitch from '@primeuix/themes/aura/toggleswitch'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'
import type { COMPONENTS } from './components'

/** Those of which others are made, and the calendar of a date's field, which comes only where one is shown. */
type Within = 'badge' | 'chip' | 'datepicker' | 'iconfield' | 'ripple' | 'virtualscroller'
type Tokens = Record<Lowercase<typeof COMPONENTS[number]> | Within, object>

/** The theme's tokens for what Plauder uses: those for all of PrimeVue weigh more than Vue itself. */
export const TOKENS = {
  ...base,
  // where keys go through a list, what is chosen is seen at once
  css: 'li.p-autocomplete-option, li.p-select-option { transition: none }',
  components: {
    autocomplete, badge, button, chip, datepicker, dialog, iconfield, inputtext, menu, popover, ripple, select, textarea, toggleswitch,
    virtualscroller,
  } satisfies Tokens,
}
