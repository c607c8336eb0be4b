/** A part of a text; with an address where it can be followed. */
export interface LinkPart {
  text: string
  href: string | null
}

// What ends a sentence does not belong to an address. A mail address ends with a name and a domain of letters.
const addresses =
  /((?:https?:\/\/|www\.)[^\s<>"]*[^\s<>".,;:!?)\]”’]|[\w.+-]+@[\w-]+(?:\.[\w-]+)*\.[a-z]{2,})/gi

/** A text in parts: addresses of the web, with `https://` or `www.` before them, and mail addresses among the rest. */
export const linkParts = (text: string): LinkPart[] =>
  text
    .split(addresses)
    .map((part, index) => ({ text: part, href: index % 2 === 1 ? hrefOf(part) : null }))
    .filter((part) => part.text !== '')

const hrefOf = (address: string): string =>
  /^https?:/i.test(address) ? address : /^www\./i.test(address) ? `https://${address}` : `mailto:${address}`
