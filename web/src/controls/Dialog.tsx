import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

/** A question laid over the page: Escape and a press beside it close it, and the keyboard stays within. */
export const Dialog = ({
  open,
  onClose,
  title,
  explains,
  wide = false,
  children,
}: {
  open: boolean
  onClose: () => void
  title: string
  explains?: string
  wide?: boolean
  children: ReactNode
}) => (
  <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
    <Radix.Portal>
      <Radix.Overlay className="fixed inset-0 z-20 bg-ink/30" />
      <Radix.Content
        aria-describedby={explains ? undefined : ''}
        className={`fixed left-1/2 top-12 z-20 max-h-[86vh] ${wide ? 'w-[52rem]' : 'w-[36rem]'} max-w-[95vw] -translate-x-1/2 overflow-y-auto border border-line-strong bg-sheet p-6`}
      >
        <Radix.Title className="text-xl">{title}</Radix.Title>
        {explains && <Radix.Description className="mt-1 text-ink-2">{explains}</Radix.Description>}
        {children}
      </Radix.Content>
    </Radix.Portal>
  </Radix.Root>
)
