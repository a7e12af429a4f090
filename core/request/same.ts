import { distance } from 'fastest-levenshtein'
import { deu, eng, fra, removeStopwords, spa } from 'stopword'
import { asksSomething } from './asks'
import { anyOf, plainly, sentencesOf } from './plain'
import { TOPIC_WORDS, TOPICS, type Topic } from './topics'
import { REQUEST_WORDS } from './words'

/** What somebody has written. */
export interface Asked { id: string, words: string }

/** Those who ask for the same: a topic that has many words, or a word that they have in common. */
export type SameQuestion = ({ topic: Topic, word: null } | { topic: null, word: string }) & { ids: string[] }

export interface Gathered {
  /** Those that most ask first. */
  same: SameQuestion[]
  /** Who asks something that nobody else does. */
  alone: string[]
  /** Who asks nothing. */
  other: string[]
}

/** Whoever writes more than this asks at the beginning. */
const MOST_SEEN = 2_000
/** A question about the first of a pair is not one about the second: "where can I park", "how much is it an hour". */
const RATHER: readonly (readonly [Topic, Topic])[] = [['parking', 'where'], ['parking', 'cost'], ['pay', 'cost'], ['how-long', 'cost'], ['how-long', 'when'], ['who', 'where']]
/** One alone has nobody who asks the same. */
const FEWEST = 2
const STOP_WORDS = new Set([...eng, ...deu, ...fra, ...spa].map(plainly).concat(Object.values(REQUEST_WORDS).flatMap(({ asks }) => asks.flatMap(one => one.split(' ')))))
const SHORTEST_WORD = 3

/**
 * Gathers answers that ask for the same thing, so that they can be answered in one go. First by topic, as `TOPIC_WORDS` tells; what
 * is left by the word that most of it have in common, then by the next. A text that asks for two things is in both.
 *
 * Words stand for one another if they are spelt alike: one is the other with an ending, or they are a slip or two apart.
 */
export function gatherSame(asked: Asked[]): Gathered {
  const questions = asked.map(({ id, words }) => ({ id, questions: questionsIn(words) }))
  const asking = questions.filter(one => one.questions.length > 0)
  const topics = asking.map(({ id, questions }) => ({ id, topics: new Set(questions.flatMap(topicsOf)) }))
  const byTopic = TOPICS.map(topic => ({ topic, word: null, ids: topics.filter(one => one.topics.has(topic)).map(({ id }) => id) }))
    .filter(({ ids }) => ids.length >= FEWEST)
  const gathered = new Set(byTopic.flatMap(({ ids }) => ids))
  const left = asking.filter(({ id }) => !gathered.has(id)).map(({ id, questions }) => ({ id, words: wordsOf(questions.join(' ')) }))
  const byWord = sharedWords(left)
  for (const { ids } of byWord) for (const id of ids) gathered.add(id)
  return {
    same: [...byTopic, ...byWord].sort((a, b) => b.ids.length - a.ids.length),
    alone: asking.filter(({ id }) => !gathered.has(id)).map(({ id }) => id),
    other: questions.filter(one => one.questions.length === 0).map(({ id }) => id),
  }
}

/** The sentences of a text that ask something, plainly written. */
const questionsIn = (words: string): string[] => sentencesOf(words.slice(0, MOST_SEEN)).filter(asksSomething).map(plainly)

const TOLD_BY = TOPICS.map(topic =>
  [topic, new RegExp(String.raw`(?<![\p{L}\d])(?:${anyOf(Object.values(TOPIC_WORDS).flatMap(words => words[topic]))})(?![\p{L}\d])`, 'u')] as const)

/** What one question is about. */
export function topicsOf(question: string): Topic[] {
  const found = new Set(TOLD_BY.filter(([, words]) => words.test(question)).map(([topic]) => topic))
  for (const [rather, than] of RATHER) if (found.has(rather)) found.delete(than)
  return [...found]
}

const wordsOf = (text: string): string[] =>
  [...new Set(removeStopwords(text.match(/[\p{L}\d]+/gu) ?? [], [...STOP_WORDS]).filter(word => word.length >= SHORTEST_WORD))]

/** Whether two words are one, with another ending or a slip. */
export function isAlike(a: string, b: string): boolean {
  if (a === b) return true
  const [short, long] = a.length <= b.length ? [a, b] : [b, a]
  if (short.length >= SHORTEST_WORD && long === `${short}s`) return true
  if (short.length >= 4 && long.startsWith(short) && long.length - short.length <= 3) return true
  // a slip in a short word makes another word
  return short.length >= 5 && distance(a, b) <= (short.length >= 8 ? 2 : 1)
}

/** The word that most have in common, then of the rest, until no two share one. */
function sharedWords(asked: { id: string, words: string[] }[]): SameQuestion[] {
  const found: SameQuestion[] = []
  let left = asked
  while (left.length >= FEWEST) {
    const kept = left
    const words = [...new Set(kept.flatMap(one => one.words))].sort()
    const [best] = words.map(word => ({ word, ids: kept.filter(one => one.words.some(other => isAlike(word, other))).map(({ id }) => id) }))
      .sort((a, b) => b.ids.length - a.ids.length)
    if (!best || best.ids.length < FEWEST) break
    found.push({ topic: null, ...best })
    left = kept.filter(({ id }) => !best.ids.includes(id))
  }
  return found
}
