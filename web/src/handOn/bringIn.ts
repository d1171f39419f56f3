import {
  readStudyFile,
  type Study,
  type StudySummary,
  writeStudyFile,
  fileNameOf,
} from '@yperkine/core'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { api } from '../api'
import { studyId } from '../takeAway/page'

/** Why a file was not taken in, with the path of each fault. */
export interface Refusal {
  name: string
  problems: readonly { path: string; message: string }[]
}
export interface Incoming {
  name: string
  study: Study
  /** A study of the same title that is here already. */
  like: StudySummary | null
}

/** A study is at most 1 MiB; a zip of many may be larger, and none unpacks to more than this. */
const largestText = 2 ** 21
const largestZip = 2 ** 26
const mostFaults = 12

/** A take-away page is a page around its study. */
const isPage = (bytes: Uint8Array) => /^\s*<!doctype html/i.test(strFromU8(bytes.slice(0, 40)))

/** The study that stands in a page; the text itself where none does, which then says what it is not. */
function studyInPage(html: string): string {
  const page = new DOMParser().parseFromString(html, 'text/html')
  return page.getElementById(studyId)?.textContent ?? html.slice(0, 200)
}

/** The files of a choice or a drop, those in zips one by one. */
async function textsOf(files: readonly File[]) {
  const texts: { name: string; text: string }[] = []
  const refused: Refusal[] = []
  const refuse = (name: string, message: string) =>
    refused.push({ name, problems: [{ path: '(whole)', message }] })
  for (const file of files) {
    if (file.size > largestZip) {
      refuse(file.name, 'this file is too large to be studies')
      continue
    }
    const bytes = new Uint8Array(await file.arrayBuffer())
    if (!(bytes[0] === 0x50 && bytes[1] === 0x4b)) {
      if (isPage(bytes)) texts.push({ name: file.name, text: studyInPage(strFromU8(bytes)) })
      else if (bytes.length > largestText) refuse(file.name, 'this file is too large to be a study')
      else texts.push({ name: file.name, text: strFromU8(bytes) })
      continue
    }
    try {
      const entries = unzipSync(bytes, {
        filter: ({ name, originalSize }) => name.endsWith('.json') && originalSize <= largestText,
      })
      const names = Object.keys(entries)
      if (names.length === 0) refuse(file.name, 'there is no study in this zip')
      for (const name of names) texts.push({ name, text: strFromU8(entries[name]!) })
    } catch {
      refuse(file.name, 'this zip is damaged and cannot be opened')
    }
  }
  return { texts, refused }
}

/** Every study here, by its title. */
async function titlesHere(): Promise<ReadonlyMap<string, StudySummary>> {
  const titles = new Map<string, StudySummary>()
  let cursor: string | null = null
  do {
    const page = await api.list({ search: '', topic: '', example: 'false', cursor })
    for (const study of page.studies) {
      if (!titles.has(study.title)) titles.set(study.title, study)
    }
    cursor = page.next
  } while (cursor !== null)
  return titles
}

/** Reads files: what can be taken in, and what cannot, with the reason. Nothing is changed by it. */
export async function readFiles(files: readonly File[]) {
  const { texts, refused } = await textsOf(files)
  const here = texts.length > 0 ? await titlesHere() : new Map<string, StudySummary>()
  const incoming: Incoming[] = []
  for (const { name, text } of texts) {
    const read = readStudyFile(text.replace(/^\uFEFF/, ''))
    if (read.ok)
      incoming.push({ name, study: read.study, like: here.get(read.study.title) ?? null })
    else refused.push({ name, problems: read.problems.slice(0, mostFaults) })
  }
  return { incoming, refused }
}

export type Way = 'beside' | 'replace' | 'leave'

/** Takes studies in, each in its way; gives back how many came. */
export async function takeIn(all: readonly { incoming: Incoming; way: Way }[]): Promise<number> {
  let count = 0
  for (const { incoming, way } of all) {
    if (way === 'leave') continue
    const { study, like } = incoming
    if (way === 'replace' && like) {
      const stored = await api.get(like.id)
      await api.save(like.id, stored.version, study, crypto.randomUUID())
    } else await api.create(study)
    count += 1
  }
  return count
}

/** All studies of one's own as one zip, each a file of its title. */
export async function zipOfAll(): Promise<Blob> {
  const files: Record<string, Uint8Array> = {}
  let cursor: string | null = null
  do {
    const page = await api.list({ search: '', topic: '', example: 'false', cursor })
    for (const { id } of page.studies) {
      const { study } = await api.get(id)
      let name = fileNameOf(study.title, 'yperkine.json')
      for (let n = 2; name in files; n++) name = fileNameOf(`${study.title} ${n}`, 'yperkine.json')
      files[name] = strToU8(writeStudyFile(study))
    }
    cursor = page.next
  } while (cursor !== null)
  return new Blob([new Uint8Array(zipSync(files))], { type: 'application/zip' })
}
