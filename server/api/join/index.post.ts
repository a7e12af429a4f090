import { join } from '~~/server/identity/join'
import { openRoute } from '~~/server/routing/route'
import { fromWhere, keepTokens } from '~~/server/routing/sign-in-cookies'
import { joinForm } from '~~/shared/schemas/people'

export default openRoute({ body: joinForm, bytes: 4_096 }, async ({ event, body, now }) => {
  const tokens = await join(body, fromWhere(event), now)
  if (tokens) keepTokens(event, tokens)
  return { signedIn: tokens !== null }
})
