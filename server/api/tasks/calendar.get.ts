import { getRequestHeader, setResponseHeader } from 'h3'
import { myCalendar } from '~~/server/tasks/calendar'
import { route } from '~~/server/routing/route'

export default route({}, async ({ event, asker, now }) => {
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="tasks.ics"')
  return myCalendar(asker, getRequestHeader(event, 'accept-language')?.split(/[,;]/)[0] ?? '', now)
})
