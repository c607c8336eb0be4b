import type { Schema } from './client'

type Texts = readonly Schema['BrickTexts'][]

/** An event with its texts, which an answer holds once for all the dates that have them alike. */
export const withTexts = <T extends { texts: number | null }>(one: T, texts: Texts): T =>
  one.texts === null ? one : { ...one, ...texts[one.texts], texts: null }

/** An answer whose bricks have their texts. */
export const bricksWithTexts = <T extends { bricks: Schema['WallBody']['bricks']; texts: Texts }>(
  body: T,
): T => ({
  ...body,
  bricks: body.bricks.map((brick) => (brick.form === 'event' ? withTexts(brick, body.texts) : brick)),
  texts: [],
})
