import type { Topic } from '~~/core/request/topics'
import type { AskedTheSame } from '~~/shared/bulk-texts'

const TOPIC_WORDS: Record<Topic, string> = {
  'when': 'When it is',
  'where': 'Where it is',
  'parking': 'Where to park',
  'cost': 'What it costs',
  'pay': 'What it pays',
  'how-long': 'How long it takes',
  'bring': 'What to bring',
  'who': 'Who is writing',
}

/** What several ask: "When it is", or with the word that they have in common, "About “discount”". */
export const sayAsked = ({ topic, word }: Pick<AskedTheSame, 'topic' | 'word'>): string => topic ? TOPIC_WORDS[topic] : `About “${word}”`
