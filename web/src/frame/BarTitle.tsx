import { useTitle } from '../ui/useTitle'

/** What a page is, in the bar over it and in the title of its tab: its heading, where the page below has none of its own. */
export function BarTitle({ text, hasHeading = false }: { text: string; hasHeading?: boolean }) {
  useTitle(text)
  return hasHeading ? (
    <p className="font-head text-lg font-bold">{text}</p>
  ) : (
    <h1 className="text-lg">{text}</h1>
  )
}
