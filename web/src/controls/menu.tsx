import { DropdownMenu } from 'radix-ui'
import { useRef } from 'react'
import { Button } from './controls.tsx'

export interface MenuGroup<Value extends string = string> {
  title?: string
  items: readonly { value: Value; text: string; keys?: string; disabled?: boolean }[]
}

/** A button that opens a list of things to do; nothing happens until one is chosen with Enter or a click. */
export const Menu = <Value extends string>({
  label,
  groups,
  shape = 'plain',
  className = '',
  onPick,
  named,
  ofRow = false,
  leads = ofRow,
}: {
  label: string
  groups: readonly MenuGroup<Value>[]
  shape?: 'plain' | 'word'
  className?: string
  onPick: (value: Value) => void
  /** What a screen reader calls it, where its label says too little. */
  named?: string
  /** Whether it belongs to a row: Tab passes it by, as keys do the same, and what is chosen takes the focus itself. */
  ofRow?: boolean
  /** Whether what is chosen takes the focus itself. */
  leads?: boolean
}) => {
  /** Where it leads elsewhere: done once the menu is gone, so that it may take the focus. */
  const picked = useRef<Value | null>(null)
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button
          shape={shape}
          className={className}
          {...(named ? { 'aria-label': named } : {})}
          {...(ofRow ? { tabIndex: -1 } : {})}
        >
          {label} ▾
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            const value = picked.current
            if (value === null) return
            picked.current = null
            event.preventDefault()
            onPick(value)
          }}
          className="z-30 max-h-[min(28rem,var(--radix-dropdown-menu-content-available-height))] overflow-y-auto border border-line-strong bg-sheet py-1"
        >
          {groups
            .filter((group) => group.items.length > 0)
            .map((group, i) => (
              <DropdownMenu.Group key={group.title ?? i}>
                {group.title && (
                  <DropdownMenu.Label className="px-3 pt-1 text-[12px] text-ink-3">
                    {group.title}
                  </DropdownMenu.Label>
                )}
                {group.items.map((item) => (
                  <DropdownMenu.Item
                    key={item.value}
                    disabled={item.disabled ?? false}
                    className="cursor-pointer px-3 py-0.5 outline-none data-[disabled]:text-ink-3 data-[disabled]:line-through data-[highlighted]:bg-tide-soft"
                    onSelect={() => {
                      if (leads) picked.current = item.value
                      else onPick(item.value)
                    }}
                  >
                    {item.text}
                    {item.keys && (
                      <kbd className="ml-4 float-right font-mono text-[12px] text-ink-3">
                        {item.keys}
                      </kbd>
                    )}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Group>
            ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
