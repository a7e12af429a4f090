const LONGEST = 40

/**
 * The key of a new field, as templates write it: `Bikes wanted (max.)` is `bikes_wanted_max`. It never
 * changes, whatever the field is called later.
 *
 * @param taken keys that there are
 */
export function fieldKey(label: string, taken: readonly string[]): string {
  const plain = label.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/[^a-z0-9]+/g, '_').replace(/^_+|_+$/g, '').slice(0, LONGEST)
  const base = /^[a-z]/.test(plain) ? plain : `field_${plain}`.replace(/_$/, '')
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}_${n}`
    if (!taken.includes(key)) return key
  }
}
