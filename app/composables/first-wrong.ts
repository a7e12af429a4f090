/** The form, or the dialog, in which somebody is. */
export const formOf = (element: Element | null): Element | null => element?.closest('form, [role="dialog"]') ?? null

/**
 * Puts the cursor into the first field that is marked as wrong, once the page shows which ones are.
 *
 * @example
 * const form = formOf(document.activeElement)
 * if (!await save()) await focusFirstWrong(form)
 */
export async function focusFirstWrong(form: Element | null): Promise<void> {
  await nextTick()
  const wrong = form?.querySelector<HTMLElement>('[aria-invalid="true"]')
  // some components mark what is around the field
  const field = wrong?.matches('input, textarea, select, button, [tabindex]') ? wrong : wrong?.querySelector<HTMLElement>('input, textarea, select, [tabindex]')
  field?.focus()
}
