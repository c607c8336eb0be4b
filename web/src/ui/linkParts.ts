/** A text in parts, every second of them an address of the web; what ends a sentence does not belong to it. */
export const linkParts = (text: string): string[] => text.split(/(https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]”’])/)
