import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import type { ReactNode } from 'react'

interface Props {
  title: string
  open: boolean
  width?: string
  onClose: () => void
  children: ReactNode
}

/** A dialog over the page, with its title and the button that ends it. */
export function Panel({ title, open, width = '', onClose, children }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="fixed inset-0 z-40">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)] place-items-center p-6 max-sm:p-2">
        <DialogPanel
          className={`popover max-h-full max-w-full overflow-auto px-6 py-5 max-sm:px-4 ${width}`}
        >
          <DialogTitle className="font-serif text-[calc(20px*var(--type))] font-semibold">
            {title}
          </DialogTitle>
          {children}
          <div className="mt-4 flex justify-end">
            <button type="button" className="button button-primary" onClick={onClose}>
              Done
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  )
}
