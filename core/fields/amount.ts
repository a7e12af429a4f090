/**
 * An amount as people write it anywhere, as figures with a point: 1,234.50 and 1.234,50 and 1 234,50 € and 1’234.50 are
 * 1234.50. One mark alone with three figures behind it, 1.234 or 1,234, parts the thousands only where it is a comma.
 */
export function plainAmount(text: string): string {
  const bare = text.replace(/[\s\u00A0\u202F'’]/g, '').replace(/^[$£€]|[$£€]$/g, '')
  if (/^-?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(bare)) return bare.replaceAll(',', '')
  if (/^-?\d{1,3}(?:\.\d{3})+,\d{1,2}$/.test(bare) || /^-?\d{1,3}(?:\.\d{3}){2,}$/.test(bare))
    return bare.replaceAll('.', '').replace(',', '.')
  return /^-?\d+,\d{1,2}$/.test(bare) ? bare.replace(',', '.') : bare
}
