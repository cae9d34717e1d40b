import { Dialog as Radix } from 'radix-ui'
import { useRef, type ReactNode } from 'react'

/** A question laid over the page: Escape and a press beside it close it, the keyboard stays within, and goes back to where it was. */
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
}) => {
  const openedFrom = useRef<Element | null>(null)
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Radix.Content
          aria-describedby={explains ? undefined : ''}
          onOpenAutoFocus={() => {
            openedFrom.current = document.activeElement
          }}
          onCloseAutoFocus={(event) => {
            // Without a trigger of its own, the keyboard would fall to the top of the page.
            event.preventDefault()
            if (openedFrom.current instanceof HTMLElement && openedFrom.current.isConnected)
              openedFrom.current.focus()
          }}
          className={`fixed left-1/2 top-12 z-20 max-h-[86vh] ${wide ? 'w-[52rem]' : 'w-[36rem]'} max-w-[95vw] -translate-x-1/2 overflow-y-auto border border-line-strong bg-sheet p-6`}
        >
          <Radix.Title className="text-xl">{title}</Radix.Title>
          {explains && (
            <Radix.Description className="mt-1 text-ink-2">{explains}</Radix.Description>
          )}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
