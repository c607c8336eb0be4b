import { AlertDialog } from 'radix-ui'
import type { ReactNode } from 'react'

interface QuestionProps {
  title: string
  children: ReactNode
  yes: string
  no?: string
  /** Whether it can be answered with yes yet. */
  isReady?: boolean
  onYes: () => void
  onClose: () => void
}

const buttonLook = 'rounded-control border border-cement-500 px-3 py-1.5'

/** One irreversible question; the only dialog there is. */
export function Question({
  title,
  children,
  yes,
  no = 'Leave it',
  isReady = true,
  onYes,
  onClose,
}: QuestionProps) {
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-50 bg-cement-900/40" />
        <AlertDialog.Content className="fixed top-1/3 left-1/2 z-50 w-[26rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 rounded-control bg-surface p-5 shadow-xl">
          <AlertDialog.Title className="written text-lg">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="written mt-2 text-cement-700">{children}</div>
          </AlertDialog.Description>
          <div className="mt-5 flex justify-end gap-2">
            <AlertDialog.Cancel className={buttonLook}>{no}</AlertDialog.Cancel>
            <AlertDialog.Action
              onClick={onYes}
              disabled={!isReady}
              className={`${buttonLook} border-clash font-bold text-clash disabled:opacity-50`}
            >
              {yes}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  )
}
