import { sql, type SQL } from 'drizzle-orm'
import { spellingsOf } from '~~/core/text/plain'

/** As a pattern of LIKE, in which nothing typed has a meaning of its own. */
export const containing = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`

/** Words without accents, in small letters. */
export const plain = (words: SQL): SQL => sql`plain_words(${words})`

/** Whether some plain words hold what somebody typed, however they spell it. */
export const holdsWord = (words: SQL, typed: string): SQL =>
  sql`(${sql.join(spellingsOf(typed).map(spelling => sql`${words} like ${containing(spelling)}`), sql` or `)})`
