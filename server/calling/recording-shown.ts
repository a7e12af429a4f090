import { sql, type SQL } from 'drizzle-orm'
import { call, callTransfer, colleague, recording, recordingMark } from '../db/schema'

/** What was recorded of a call, with its marks, as JSON without its sound; null if nothing was. */
export const recordingShown = (callId: SQL): SQL => sql`(
  select json_build_object('id', rec.id, 'of', rec.of, 'ms', rec.ms, 'peaks', rec.peaks, 'had', (
    select json_agg(distinct jsonb_build_object('id', had.id, 'firstName', had.first_name)) from ${colleague} had
    where had.id in (select k.colleague_id from ${call} k where k.id = rec.call_id union all select h.from_id from ${callTransfer} h
      where h.call_id = rec.call_id and h.state = 'transferred')), 'marks', (
    select coalesce(json_agg(json_build_object('id', mark.id, 'atMs', mark.at_ms, 'words', mark.words, 'colleague', who.first_name)
      order by mark.at_ms, mark.id), '[]')
    from ${recordingMark} mark join ${colleague} who on who.id = mark.colleague_id where mark.recording_id = rec.id))
  from ${recording} rec where rec.call_id = ${callId})`
