declare module 'split-sms' {
  /** Cuts a text into parts; `characterSet` is "GSM" or "Unicode". */
  export function split(text: string): {
    characterSet: string
    parts: { content: string }[]
    length: number
    bytes: number
    remainingInPart: number
  }
}

declare module '@trt2/gsm-charset-utils' {
  export function getCharCount(text: string): { charCount: number, msgCount: number, charsPerSegment: number, encoding: string }
}

/** What the tests use of `vcf`, which brings no types. */
declare module 'vcf' {
  export default class VCard {
    version: string
    static parse(cards: string): VCard[]
    parse(card: string): this
    get(key: string): { valueOf(): string }
  }
}
