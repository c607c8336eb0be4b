import { useTitle } from '../ui/useTitle'

/** What a page is, in the bar over it and in the title of its tab. */
export function BarTitle({ text }: { text: string }) {
  useTitle(text)
  return <h1 className="text-lg">{text}</h1>
}
