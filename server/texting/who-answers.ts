import { can } from '~~/shared/permissions'
import { colleagueAtWork } from '../identity/sign-in'
import { lineBelongs, type Line } from './lines'

/** Who of these colleagues answers a line, in the order in which they are given. */
export async function whoAnswers(colleagueIds: string[], on: Pick<Line, 'colleagueId' | 'teamId'>): Promise<string[]> {
  const answer: string[] = []
  for (const id of colleagueIds) {
    const atWork = await colleagueAtWork(id)
    if (atWork && can(atWork, 'line.answer', lineBelongs(on))) answer.push(id)
  }
  return answer
}
