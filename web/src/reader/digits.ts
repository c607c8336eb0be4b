/** The zero of each row of ten digits that a language of dates may be written with (Unicode, General_Category Nd). */
const zeros = [
  0x0660, 0x06f0, 0x0966, 0x09e6, 0x0a66, 0x0ae6, 0x0b66, 0x0be6, 0x0c66, 0x0ce6, 0x0d66, 0x0e50, 0x0ed0,
  0x1040, 0xff10,
]

/** Marks of direction, which are typed by nobody and stand in what is shown (Unicode, Bidi_Control). */
const marks = /\p{Bidi_Control}/gu

/** A text with the digits of any script as 0 to 9, and without marks of direction. */
export const plainDigits = (text: string): string =>
  text.replaceAll(marks, '').replaceAll(/[^\P{Nd}0-9]/gu, (digit) => {
    const code = digit.codePointAt(0) ?? 0
    const zero = zeros.find((one) => one <= code && code <= one + 9)
    return zero === undefined ? digit : String(code - zero)
  })
