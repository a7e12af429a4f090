import { fillTemplate } from '../core/template/fill'
import type { History, LineRow, Person } from './history'
import { Random } from './random'

const [MINUTE, DAY] = [60_000, 86_400_000]
const SEED = 77

export interface DemoWordings { id: string, wordings: { body: string, at: Date }[] }

/** How often each wording was answered, the first one first: asking when it suits brought more than asking to call back. */
const ANSWERED = [0.14, 0.18, 0.24, 0.45]
const ANSWERS = ['After four is best', 'Tomorrow morning please', 'Sorry, was with a customer. Now is fine', 'Just write me here', 'Monday?']

/** After calls that nobody answered: the text that says so, in the wording of its time, and sometimes an answer. */
export class MissedCalls {
  private readonly random = new Random(SEED)

  constructor(private readonly history: History, private readonly template: DemoWordings, private readonly now: Date) {}

  text(person: Person, line: LineRow, about: { first: string, me: string, ownerId: string }, called: number): void {
    const at = new Date(called + 2 * MINUTE)
    if (at.getTime() > this.now.getTime() - 4 * DAY) return
    const version = Math.max(1, this.template.wordings.filter(one => one.at <= at).length)
    const filled = fillTemplate(this.template.wordings[version - 1]!.body, { person: { first_name: about.first }, sender: { first_name: about.me }, firm: { name: 'Pannier & Post' } }, { zone: 'UTC', format: { hours: 12, dayFirst: false } })
    if (!filled.ok) return
    this.history.text(person, line, 'ours', filled.text, at, about.ownerId, { templateId: this.template.id, version })
    if (!this.random.chance(ANSWERED[version - 1] ?? 0.3)) return
    const answered = at.getTime() + this.random.between(5, 300) * MINUTE
    this.history.text(person, line, 'theirs', this.random.pick(ANSWERS), new Date(answered), about.ownerId)
    this.history.text(person, line, 'ours', 'Thank you, I ring you then.', new Date(answered + 6 * MINUTE), about.ownerId)
  }
}
