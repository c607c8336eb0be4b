import { useEffect } from 'react'

/** Names what is on the page, for its tab, the history and whoever hears it read. */
export function useTitle(text: string) {
  useEffect(() => {
    document.title = `${text} · Mortar`
  }, [text])
}
