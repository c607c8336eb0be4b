import type { Schema } from '../api/client'
import { Button } from './Button'
import { TextField } from './TextField'

interface NameFieldProps {
  /** What stands before the name in the address. */
  before: string
  value: string
  /** What was found of the name, once it has been looked at as it stands. */
  look: Schema['NameBody'] | undefined
  problem?: string
  onChange: (name: string) => void
}

/** A name in a short address: said while it is typed whether it can be had, and which can instead. */
export function NameField({ before, value, look, problem, onChange }: NameFieldProps) {
  return (
    <>
      <TextField
        label={before}
        value={value}
        onChange={(name) => onChange(name.toLowerCase())}
        problem={problem ?? look?.problem ?? undefined}
        hint={look && !look.problem ? 'It can be had.' : undefined}
        autoComplete="off"
      />
      {(look?.instead.length ?? 0) > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 text-[12px]">
          Free:
          {look?.instead.map((one) => (
            <Button key={one} onClick={() => onChange(one)}>
              {one}
            </Button>
          ))}
        </p>
      )}
    </>
  )
}
