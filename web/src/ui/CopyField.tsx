import { useState } from 'react'
import { Button } from './Button'
import { Field } from './Field'
import { inputLook } from './TextField'

/** Something to be copied, which can also be marked by hand. */
export function CopyField({ label, text }: { label: string; text: string }) {
  const [copied, setCopied] = useState('')
  const copy = () => navigator.clipboard.writeText(text).then(() => setCopied(text))
  return (
    <div className="grid gap-1">
      <Field label={label}>
        {({ id }) => (
          <textarea
            id={id}
            readOnly
            rows={Math.min(6, Math.ceil(text.length / 44))}
            value={text}
            onFocus={(event) => event.target.select()}
            className={`${inputLook} resize-none break-all font-mono text-[12px]`}
          />
        )}
      </Field>
      {'clipboard' in navigator && (
        <div>
          <Button onClick={() => void copy()}>{copied === text ? 'Copied' : 'Copy'}</Button>
        </div>
      )}
    </div>
  )
}
