import { and, eq, inArray, isNull } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { sayEffect, type EffectOf } from '~~/core/effects/effects'
import type { EffectSaid } from '~~/shared/effects'
import { sendForm } from '~~/shared/schemas/texting'
import type { FilledTemplate } from '~~/shared/template'
import { read } from '../db/door'
import { template } from '../db/schema'
import { badInput, Problem } from '../http/problem'
import { fillForRecord, fillOneForRecord } from '../templates/fill'
import { sendText } from '../texting/send'
import { takeBack } from '../texting/take-back'
import { Unfit, type EffectWork, type Occasion } from './effect'
import { textTarget, type TextTarget } from './text-target'

interface Facts { templates: FilledTemplate[], target: TextTarget }
interface Kept { messageId: string }

/** A text from a template. It waits in the outbox for as long as it can be taken back, and passes the gate as every text does. */
export const text: EffectWork<'text', Facts, Kept> = {
  once: true,

  async check(effect, module) {
    const [found] = await read(database =>
      database
        .select()
        .from(template)
        .where(and(eq(template.id, effect.templateId), isNull(template.retiredAt))),
    )
    if (!found || found.audience === 'mine')
      throw new Unfit({ templateId: 'This template is not there for everybody. Choose another one, or share it first.' })
    if (!found.modules.includes(module))
      throw new Unfit({ templateId: `“${found.name}” does not belong to this module. Choose another one, or add the module to it.` })
    return effect
  },

  async describe(effects) {
    const rows = await read(database =>
      database
        .select({ id: template.id, name: template.name })
        .from(template)
        .where(
          inArray(
            template.id,
            effects.map(one => one.templateId),
          ),
        ),
    )
    return effect => sayEffect(effect, { template: rows.find(one => one.id === effect.templateId)?.name })
  },

  async facts(effects, occasion) {
    const { templates } = await fillForRecord(
      occasion.asker,
      occasion.record.id,
      { aboutId: null, ref: null },
      effects.map(one => one.templateId),
    )
    return { templates, target: await textTarget(occasion) }
  },

  preview(effect, { templates, target }) {
    const filled = templates.find(({ id }) => id === effect.templateId)
    return {
      words: sayEffect(effect, { template: filled?.name }),
      text: filled
        ? {
            name: filled.name,
            text: filled.text,
            missing: filled.missing,
            fillIns: filled.fillIns,
            line: target.lineName ?? '',
            to: target.e164 ?? '',
          }
        : null,
      problem: whyNot(filled, target),
    }
  },

  /** Said of it are its words, changed by hand, or else the answers to what it asks for. */
  async perform(effect, said, { templates, target }, occasion, now) {
    if (target.problem) throw badInput({ text: target.problem })
    const known = templates.find(({ id }) => id === effect.templateId)
    const words = said.text ?? await fill(effect, said, occasion)
    const id = uuid()
    const from = known ? { templateId: known.id, templateVersion: known.version } : { templateId: null, templateVersion: null }
    await sendText(
      occasion.asker,
      sendForm.validateSync({ id, lineId: target.lineId, phoneId: target.phoneId, text: words, anyway: ['twice'], ...from }),
      now,
      'disposition',
    )
    return { state: 'done', kept: { messageId: id } }
  },

  async undo({ messageId }, { asker }, now) {
    await takeBack(asker, messageId, now)
    return null
  },
}

function whyNot(filled: FilledTemplate | undefined, target: TextTarget): string | null {
  if (!filled) return 'Its template is gone.'
  if (target.problem) return target.problem
  return filled.text === null ? `Missing: ${filled.missing.join(', ')}.` : null
}

/** @throws Unfit at the blanks that are still empty; Problem 422 where a field of the person is */
async function fill({ templateId }: EffectOf<'text'>, { answers }: EffectSaid, { asker, record }: Occasion): Promise<string> {
  const filled = await fillOneForRecord(asker, record.id, templateId, { answers, aboutId: null, ref: null }).catch((error: unknown) => {
    if (error instanceof Problem && error.details.fields) throw new Unfit(error.details.fields)
    throw error
  })
  if (filled.text === null) throw badInput({ text: `Missing: ${filled.missing.join(', ')}. No text leaves with a hole in it.` })
  return filled.text
}
