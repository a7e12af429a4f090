/**
 * A cell that no spreadsheet takes for a formula: an apostrophe goes before what begins like one. Numbers
 * keep their sign, telephone numbers (+1 808 555 0142) above all. Spreadsheets of East Asia read the full-width signs too.
 *
 * Source: common practice against what is known as CSV injection; the characters as spreadsheets read them.
 */
export function harmlessCell(text: string): string {
  const beginsAsFormula = /^[=＝@＠\t\r]/.test(text) || (/^[+＋\-－−]/.test(text) && !/^[+-][\d\s().,-]+$/.test(text))
  return beginsAsFormula ? `'${text}` : text
}
