/**
 * A number as people read it: grouped, with its country code. North America and the United Kingdom by
 * their own habits, others in threes; no metadata is needed in the browser for that.
 *
 * @param home leaves the code out for numbers of North America, where everybody reads them so
 */
export function showPhone(e164: string, home = false): string {
  const american = /^\+1(\d{3})(\d{3})(\d{4})$/.exec(e164)
  if (american) return `${home ? '' : '+1 '}${american[1]} ${american[2]} ${american[3]}`
  const british = /^\+44(7\d{3}|1\d{2}|20)(\d{3,4})(\d{3,4})$/.exec(e164)
  if (british)
    return british[1]!.startsWith('7') ? `+44 ${british[1]} ${british[2]}${british[3]}` : `+44 ${british[1]} ${british[2]} ${british[3]}`
  return e164.replace(/(\d{3})(?=\d{3})/g, '$1 ')
}
