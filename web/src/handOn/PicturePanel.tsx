import {
  type Drawing,
  hasSpace,
  pictureLooks,
  spaceId,
  svgOf,
  type Typesetter,
} from '@yperkine/core'
import { useEffect, useMemo, useState } from 'react'
import { Check } from '../parts/Check'
import { Panel } from '../parts/Panel'
import { saveBlob } from '../parts/saveAsFile'
import { useStudy, useWorkbench, useWorkbenchStore } from '../workbench/store'
import { Choice } from './fields'
import { centimetre, drawingOf, latexPictureFile, pictureFile } from './make'
import { type Format, formats, type PictureSettings, readSettings, writeSettings } from './settings'

interface Props {
  onClose: () => void
  onTrouble: (words: string) => void
}

/** How pictures are made, with the picture as it will be. */
export function PicturePanel({ onClose, onTrouble }: Props) {
  const store = useWorkbenchStore()
  const [settings, setSettings] = useState(readSettings)
  const shown = useStudy((s) => s.lanes)
  const scenes = useWorkbench((s) => s.scene.lanes)
  const inSpace = useWorkbench((s) => hasSpace(s.evaluation))
  const views = useMemo(
    () => [...(inSpace ? [{ id: spaceId, title: 'Surfaces' }] : []), ...scenes],
    [inSpace, scenes],
  )
  const all = useMemo(
    () => [...(inSpace ? [spaceId] : []), ...shown.map(({ id }) => id)],
    [inSpace, shown],
  )
  const [left, setLeft] = useState<readonly string[]>([])
  const set = (change: Partial<PictureSettings>) => {
    const next = { ...settings, ...change }
    setSettings(next)
    writeSettings(next)
  }
  const lanes = useMemo(() => all.filter((id) => !left.includes(id)), [all, left])
  const drawing = useMemo(() => drawingOf(store, settings, lanes), [store, settings, lanes])
  const save = async (format: Format) => {
    try {
      const { name, blob } = await pictureFile(drawing, format, settings)
      saveBlob(name, blob)
    } catch (error) {
      const why = error instanceof Error ? error.message : 'the browser gave no reason'
      onTrouble(`The picture could not be made: ${why}. The study is as it was.`)
    }
  }
  const saveLatex = () => {
    const { name, blob } = latexPictureFile(store, settings, lanes)
    saveBlob(name, blob)
  }
  return (
    <Panel title="How pictures are made" open onClose={onClose} width="w-[1000px]">
      <div className="grid gap-6 py-2 md:grid-cols-[300px_minmax(0,1fr)]">
        <div className="grid content-start gap-3">
          <Size settings={settings} onSet={set} />
          <Choice
            label="Bitmap"
            value={String(settings.scale)}
            options={['1', '2', '3', '4'].map((n) => [
              n,
              n === '1' ? 'as large' : `${n} times as large`,
            ])}
            onChoose={(n) => set({ scale: Number(n) as PictureSettings['scale'] })}
          />
          <Choice
            label="Look of the picture"
            value={settings.look ?? ''}
            options={[['', 'as it is shown'], ...pictureLooks.map((l): [string, string] => [l, l])]}
            onChoose={(look) => set({ look: pictureLooks.find((l) => l === look) ?? null })}
          />
          <Choice
            label="Words in SVG"
            value={settings.words}
            options={[
              ['outlines', 'as outlines'],
              ['text', 'as text, to edit further'],
            ]}
            onChoose={(words) => set({ words: words === 'text' ? 'text' : 'outlines' })}
          />
          <fieldset className="grid gap-1.5">
            <legend className="mb-1 text-quiet">On it</legend>
            <Check label="Ground" on={settings.ground} onSet={(ground) => set({ ground })} />
            <Check label="Ruler" on={settings.ruler} onSet={(ruler) => set({ ruler })} />
            <Check label="Title above" on={settings.title} onSet={(title) => set({ title })} />
            <Check label="Notes" on={settings.notes} onSet={(notes) => set({ notes })} />
            <Check label="Working" on={settings.working} onSet={(working) => set({ working })} />
            {views.length > 1 &&
              views.map(({ id, title }) => (
                <Check
                  key={id}
                  label={id === spaceId ? title : `Lane ${title}`}
                  on={!left.includes(id)}
                  onSet={(on) => {
                    const next = on ? left.filter((one) => one !== id) : [...left, id]
                    // A picture without a lane is none.
                    if (next.length < all.length) setLeft(next)
                  }}
                />
              ))}
          </fieldset>
        </div>
        <div className="grid content-start gap-3">
          <Preview drawing={drawing} />
          <div className="flex flex-wrap gap-2">
            {formats.map((format) => (
              <button
                key={format}
                type="button"
                className="button"
                onClick={() => void save(format)}
              >
                Save as {format.toUpperCase()}
              </button>
            ))}
            <button
              type="button"
              className="button"
              title="At most 14 cm wide, in the fonts of the paper it is put into"
              onClick={saveLatex}
            >
              Save for LaTeX
            </button>
          </div>
        </div>
      </div>
    </Panel>
  )
}

/** The picture as it will be, once the fonts have come. */
function Preview({ drawing }: { drawing: Drawing }) {
  const [setter, setSetter] = useState<Typesetter | null>(null)
  useEffect(() => {
    let gone = false
    void import('./typesetter')
      .then((m) => m.loadTypesetter())
      .then(
        (made) => gone || setSetter(made),
        // Without fonts nothing is shown; saving tells why.
        () => undefined,
      )
    return () => {
      gone = true
    }
  }, [])
  const source = useMemo(() => {
    if (!setter) return null
    return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(drawing, setter))}`
  }, [drawing, setter])
  if (!source) return <p className="text-quiet">Setting the words …</p>
  return (
    <img
      alt={`Preview: ${drawing.description}`}
      src={source}
      className="max-h-[52vh] max-w-full rounded-md border border-rule object-contain"
    />
  )
}

interface SizeProps {
  settings: PictureSettings
  onSet: (change: Partial<PictureSettings>) => void
}

/** Width and height in pixels or centimetres. */
function Size({ settings: { unit, width, height }, onSet }: SizeProps) {
  const shown = (pixels: number) =>
    String(unit === 'cm' ? Number((pixels * centimetre).toFixed(2)) : Math.round(pixels))
  const pixels = (text: string) => {
    const value = Number(text.replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(value) || value <= 0) return null
    return Math.min(6000, Math.max(120, unit === 'cm' ? value / centimetre : value))
  }
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      <LengthField
        label="Width"
        value={shown(width)}
        onEnter={(text) => {
          const entered = pixels(text)
          if (entered !== null) onSet({ width: entered })
        }}
      />
      <LengthField
        label="Height"
        value={height === null ? '' : shown(height)}
        hint="by the screen"
        onEnter={(text) => onSet({ height: pixels(text) })}
      />
      <select
        className="field"
        aria-label="Unit of size"
        value={unit}
        onChange={(e) => onSet({ unit: e.target.value === 'cm' ? 'cm' : 'px' })}
      >
        <option value="px">px</option>
        <option value="cm">cm</option>
      </select>
    </div>
  )
}

interface NumberProps {
  label: string
  value: string
  hint?: string
  onEnter: (text: string) => void
}

function LengthField({ label, value, hint, onEnter }: NumberProps) {
  const [text, setText] = useState<string | null>(null)
  const enter = () => {
    if (text !== null) onEnter(text)
    setText(null)
  }
  return (
    <label className="grid gap-1">
      {label}
      <input
        className="field w-full"
        inputMode="decimal"
        placeholder={hint}
        value={text ?? value}
        onChange={(e) => setText(e.target.value)}
        onBlur={enter}
        onKeyDown={(e) => {
          if (e.key === 'Enter') enter()
        }}
      />
    </label>
  )
}
