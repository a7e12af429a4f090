import { route } from '~~/server/routing/route'
import { look, whoElse } from '~~/server/live/presence'
import { mustAnswer } from '~~/server/texting/conversations'
import { lineBelongs } from '~~/server/texting/lines'
import { byId } from '~~/shared/schemas/common'
import { presenceForm } from '~~/shared/schemas/presence'

export default route({ params: byId('conversation'), body: presenceForm, bytes: 256 }, async ({ asker, params: { id }, body, now }) => {
  const { line } = await mustAnswer(asker, id)
  look(asker, { of: 'conversation', id }, lineBelongs(line), body.state, now)
  return whoElse(asker, { of: 'conversation', id }, now)
})
