import type { NationalLanguage } from '~~/core/text/national'

export const TABLE_WORDS: Record<NationalLanguage, string> = { turkish: 'Turkish', spanish: 'Spanish', portuguese: 'Portuguese' }
