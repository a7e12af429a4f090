import { rememberedMatching } from '~~/server/imports/progress'
import { route } from '~~/server/http/route'
import { ownFields } from '~~/server/records/fields'
import { importTargets } from '~~/shared/import'
import { ofModule } from '~~/shared/schemas/list'

/** What columns of a file can become, and what columns of the same headings became the last time. */
export default route({ query: ofModule }, async ({ asker, query }) => ({
  targets: importTargets(query.module, await ownFields()),
  remembered: await rememberedMatching(asker, query.module),
}))
