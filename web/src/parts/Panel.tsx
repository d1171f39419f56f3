import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import type { ReactNode } from 'react'

interface Props {
  title: string
  open: boolean
  width?: string
  onClose: () => void
  children: ReactNode
}

/**
 * A dialog over the page: its title and the button that ends it stand still while what is between
 * them scrolls. On a phone it is a sheet along the lower edge.
 */
export function Panel({ title, open, width = '', onClose, children }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="fixed inset-0 z-40">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)] place-items-center p-6 max-sm:items-end max-sm:justify-items-stretch max-sm:px-0 max-sm:pb-0">
        <DialogPanel
          className={`popover flex max-h-full max-w-full flex-col max-sm:!w-full max-sm:rounded-b-none ${width}`}
        >
          <DialogTitle className="px-6 pt-5 pb-1 font-serif text-[calc(20px*var(--type))] font-semibold max-sm:px-4 max-sm:pt-4">
            {title}
          </DialogTitle>
          <div className="min-h-0 overflow-auto px-6 max-sm:px-4">{children}</div>
          <div className="flex justify-end px-6 pt-4 pb-5 max-sm:px-4 max-sm:pb-4">
            <button
              type="button"
              className="button button-primary max-sm:min-h-11 max-sm:w-full max-sm:justify-center"
              onClick={onClose}
            >
              Done
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  )
}
