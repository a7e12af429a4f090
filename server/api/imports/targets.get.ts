import { rememberedMatching } from '~~/server/imports/progress'
import { targetsOf } from '~~/server/imports/targets'
import { route } from '~~/server/routing/route'
import { ofModule } from '~~/shared/schemas/list'

/** What columns of a file can become, and what columns of the same headings became the last time. */
export default route({ query: ofModule }, async ({ asker, query }) => ({
  targets: await targetsOf(query.module),
  remembered: await rememberedMatching(asker, query.module),
}))
