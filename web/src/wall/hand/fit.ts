import { type Brick, titleOf } from '../../model/bricks'
import { clockText } from '../../reader/dates'

/** Small letters, figures and signs that are no wider than these pixels at the size of a brick's words. */
const narrow = /[a-ln-vx-z0-9 .,:;'’()/-]/g
const narrowPx = 7
/** Capitals, letters of other scripts, and those that take a whole square. */
const widePx = 11
const squarePx = 13
const squares = /[\u2e80-\uffff]/g

/** A figure of the hour, which is bold. */
const figurePx = 8
const markPx = 22
const signPx = 16

/**
 * Whether the words of a brick have room for sure. What has need not be clipped, and a browser that clips thousands of
 * boxes sorts them anew at every move of the hand. In doubt it has not.
 */
export function fitsForSure(
  brick: Brick,
  whose: string | undefined,
  widthPx: number,
  lines: number,
): boolean {
  const words = `${whose ? `${whose}: ` : ''}${brick.form === 'busy' ? 'Busy' : titleOf(brick.title)}`
  const signs =
    brick.form === 'busy'
      ? 0
      : (brick.repeats ? 1 : 0) +
        (brick.private ? 1 : 0) +
        (brick.time.form === 'days' && brick.time.toBeSet ? 6 : 0)
  const neededPx = textPx(words) + hourOf(brick).length * figurePx + markPx + signs * signPx
  // On more lines than one, each may lose as much as a long word to the next.
  return neededPx <= (lines <= 1 ? widthPx : (lines * widthPx) / 2)
}

function hourOf(brick: Brick): string {
  if (brick.form === 'busy') return clockText(brick.start)
  return brick.time.form === 'days' ? '' : clockText(brick.time.start)
}

function textPx(words: string): number {
  const [narrows, square] = [words.match(narrow)?.length ?? 0, words.match(squares)?.length ?? 0]
  return narrows * narrowPx + square * squarePx + (words.length - narrows - square) * widePx
}
