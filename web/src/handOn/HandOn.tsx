import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from '@headlessui/react'
import { ChevronDown } from 'lucide-react'
import { useState } from 'react'
import { AnimationPanel } from './AnimationPanel'
import { saveBlob } from '../parts/saveAsFile'
import { useWorkbenchStore } from '../workbench/store'
import { LinkPanel } from './LinkPanel'
import { PicturePanel } from './PicturePanel'
import { PrintPanel } from './PrintPanel'
import { saveStudyFile } from './saveStudyFile'
import { type Format, formats, readSettings } from './settings'
import { TakeAwayPanel } from './TakeAwayPanel'
import { type Told, Trouble } from './Trouble'

const item =
  'block w-full rounded-md px-3 py-1.5 text-left data-[focus]:bg-chosen pointer-coarse:min-h-11'

/** Why something could not be handed on, in words. */
const reasonOf = (error: unknown) =>
  error instanceof Error && error.message !== '' ? error.message : 'the browser gave no reason'

/** What stands as empty boxes in a LaTeX file. */
const boxesWords = (missing: readonly string[]) =>
  `The file is made. LaTeX has no sign of its own for ${missing.slice(0, 8).join(' ')}${missing.length > 8 ? ' and others' : ''}: an empty box stands in the place of each.`

/** What can be made of a study for others, each item named by what it makes. */
export function HandOn() {
  const store = useWorkbenchStore()
  const [open, setOpen] = useState<'picture' | 'print' | 'animation' | 'takeAway' | 'link' | null>(
    null,
  )
  const [told, setTold] = useState<Told | null>(null)
  const setTrouble = (words: string) => setTold({ title: 'That did not work', words })
  const { announce } = store.getState()
  /** Makes a picture; a failure is told, and changes nothing. */
  const make = async (what: string, work: () => Promise<void>) => {
    try {
      await work()
      announce(`${what} made`)
    } catch (error) {
      setTrouble(`${what} could not be made: ${reasonOf(error)}. The study is as it was.`)
    }
  }
  const save = (format: Format) =>
    make(`Picture as ${format.toUpperCase()}`, async () => {
      const { drawingOf, pictureFile } = await import('./make')
      const settings = readSettings()
      const { name, blob } = await pictureFile(drawingOf(store, settings, null), format, settings)
      saveBlob(name, blob)
    })
  const saveLatex = (what: 'Picture for LaTeX' | 'Working for LaTeX') =>
    make(what, async () => {
      const { latexPictureFile, latexWorkingFile } = await import('./make')
      const settings = readSettings()
      const { name, blob, missing } =
        what === 'Picture for LaTeX'
          ? latexPictureFile(store, settings, null)
          : latexWorkingFile(store, settings)
      saveBlob(name, blob)
      if (missing.length > 0)
        setTold({ title: 'Made, with empty boxes', words: boxesWords(missing) })
    })
  const copy = () =>
    make('Copy of the picture', async () => {
      const { drawingOf, pictureFile } = await import('./make')
      const settings = readSettings()
      // The clipboard takes a promise, so that it is asked for while the press still counts.
      const picture = pictureFile(drawingOf(store, settings, null), 'png', settings)
      await navigator.clipboard.write([
        new ClipboardItem({ 'image/png': picture.then(({ blob }) => blob) }),
      ])
    })
  return (
    <>
      <Menu>
        <MenuButton className="button whitespace-nowrap max-sm:px-2">
          Hand on <ChevronDown size={14} aria-hidden />
        </MenuButton>
        <MenuItems anchor="bottom end" className="popover z-30 w-64 p-1.5 [--anchor-gap:4px]">
          {formats.map((format) => (
            <MenuItem key={format}>
              <button type="button" className={item} onClick={() => void save(format)}>
                Picture as {format.toUpperCase()}
              </button>
            </MenuItem>
          ))}
          <MenuItem>
            <button type="button" className={item} onClick={() => void copy()}>
              Copy the picture
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => setOpen('picture')}>
              How pictures are made …
            </button>
          </MenuItem>
          <MenuSeparator className="my-1 h-px bg-rule" />
          {(['Picture for LaTeX', 'Working for LaTeX'] as const).map((what) => (
            <MenuItem key={what}>
              <button type="button" className={item} onClick={() => void saveLatex(what)}>
                {what}
              </button>
            </MenuItem>
          ))}
          <MenuSeparator className="my-1 h-px bg-rule" />
          <MenuItem>
            <button type="button" className={item} onClick={() => setOpen('print')}>
              Print sheet
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => setOpen('animation')}>
              Animation
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => setOpen('takeAway')}>
              Take-away page
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => saveStudyFile(store)}>
              Study file
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => setOpen('link')}>
              Link
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
      {open === 'picture' && <PicturePanel onClose={() => setOpen(null)} onTrouble={setTrouble} />}
      {open === 'print' && <PrintPanel onClose={() => setOpen(null)} onTrouble={setTrouble} />}
      {open === 'animation' && (
        <AnimationPanel onClose={() => setOpen(null)} onTrouble={setTrouble} />
      )}
      {open === 'takeAway' && (
        <TakeAwayPanel onClose={() => setOpen(null)} onTrouble={setTrouble} />
      )}
      {open === 'link' && <LinkPanel onClose={() => setOpen(null)} />}
      <Trouble told={told} onClose={() => setTold(null)} />
    </>
  )
}
