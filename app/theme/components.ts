/** The components of PrimeVue that Plauder knows by name. Each needs its tokens in `tokens.ts`; the compiler says which is missing. */
export const COMPONENTS = [
  'Button', 'InputText', 'Textarea', 'Select', 'Dialog', 'Menu', 'AutoComplete', 'Popover', 'ToggleSwitch',
] as const
