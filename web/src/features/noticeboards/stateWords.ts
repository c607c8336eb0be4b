import type { Noticeboard } from './noticeboardQueries'

/** How a noticeboard stands, in words. */
export function stateWords(board: Pick<Noticeboard, 'state' | 'isRead' | 'lost'>): string {
  if (board.isRead) return 'Open to the world'
  if (board.lost.length > 0) return 'Paused: a calendar on it is not its keeper’s to show any more'
  if (board.state === 'open') return 'Not read while what is on it is at rest'
  return board.state === 'draft' ? 'Not open yet' : 'Paused'
}
