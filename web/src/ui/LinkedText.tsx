import { linkParts } from './linkParts'

/** Text in which addresses of the web and of mail can be followed; to a page of its own where they lead elsewhere. */
export function LinkedText({ text, elsewhere = false }: { text: string; elsewhere?: boolean }) {
  return linkParts(text).map((part, index) =>
    part.href ? (
      <a
        // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text stand where they stand
        key={index}
        href={part.href}
        className="underline underline-offset-2"
        {...(elsewhere && { target: '_blank', rel: 'noreferrer noopener' })}
      >
        {part.text}
      </a>
    ) : (
      part.text
    ),
  )
}
