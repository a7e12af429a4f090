const LONGEST = 40

/** What every object has by itself: a map of fields would seem to hold it. */
const INHERITED = Object.getOwnPropertyNames(Object.prototype)

/**
 * The key of a new field, as templates write it: `Bikes wanted (max.)` is `bikes_wanted_max`. It never
 * changes, whatever the field is called later.
 *
 * @param taken keys that there are
 */
export function fieldKey(label: string, taken: readonly string[]): string {
  const plain = label
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .slice(0, LONGEST)
  const base = /^[a-z]/.test(plain) ? plain : `field_${plain}`.replace(/_$/, '')
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}_${n}`
    if (!taken.includes(key) && !INHERITED.includes(key)) return key
  }
}
