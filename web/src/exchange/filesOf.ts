import type { DroppedFile } from './dropped'

/** All files of a drop, those of folders included, with their paths. */
export async function filesOf(transfer: DataTransfer): Promise<DroppedFile[]> {
  // the entries are gone as soon as this call waits
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry())
  const plain = [...transfer.files]
  if (entries.every((entry) => entry === null)) return plain.map((file) => ({ path: file.name, file }))
  return (await Promise.all(entries.filter((entry) => entry !== null).map((entry) => below(entry, '')))).flat()
}

/** Files that were chosen, with their paths where a folder was. */
export const chosenFiles = (files: Iterable<File>): DroppedFile[] =>
  [...files].map((file) => ({ path: file.webkitRelativePath || file.name, file }))

async function below(entry: FileSystemEntry, folder: string): Promise<DroppedFile[]> {
  const path = folder + entry.name
  if (entry.isFile) {
    const file = await new Promise<File>((found, failed) => (entry as FileSystemFileEntry).file(found, failed))
    return [{ path, file }]
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const inner: FileSystemEntry[] = []
  // a reader gives some at a time, and nothing at the end
  for (let more = await some(reader); more.length > 0; more = await some(reader)) inner.push(...more)
  return (await Promise.all(inner.map((one) => below(one, `${path}/`)))).flat()
}

const some = (reader: FileSystemDirectoryReader) => new Promise<FileSystemEntry[]>((found, failed) => reader.readEntries(found, failed))
