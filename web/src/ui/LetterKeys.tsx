import { useState } from 'react'
import { areLettersKeys, keepLettersKeys } from '../reader/letterKeys'
import { Check } from './Check'

/** Whether letters alone are keys on this device. */
export function LetterKeys() {
  const [are, setAre] = useState(areLettersKeys)
  return (
    <Check
      label="Single letters and signs are keys"
      hint="On this device. Without them Alt with a digit, Esc and what is on the screen still do everything; M, Space and Delete are keys of the brick that has the focus."
      checked={are}
      onChange={(next) => {
        keepLettersKeys(next)
        setAre(next)
      }}
    />
  )
}
