import type { BoardView } from './noticeboardQueries'

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')

/** What is pasted into another website to show a noticeboard there. */
export function snippet(
  url: string,
  title: string,
  { height, grows, view }: { height: number; grows: boolean; view?: BoardView },
): string {
  const query = new URLSearchParams({ frame: '1', ...(view && { view }) })
  const frame = `<iframe src="${escaped(`${url}?${query}`)}" title="${escaped(title)}" width="100%" height="${height}" style="border:0" loading="lazy"></iframe>`
  return grows
    ? `${frame}\n<script src="${escaped(new URL('/noticeboard-frame.js', url).href)}" async></script>`
    : frame
}
