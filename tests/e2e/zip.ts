import { crc32 } from 'node:zlib'

/** A zip of files that are not packed (APPNOTE.TXT 6.3: local headers, central directory, its end). */
export function zipOf(files: Record<string, string | Buffer>): Buffer {
  const [local, central]: [Buffer[], Buffer[]] = [[], []]
  let at = 0
  for (const [path, content] of Object.entries(files)) {
    const [name, bytes] = [Buffer.from(path), Buffer.from(content)]
    const facts = Buffer.alloc(26)
    facts.writeUInt16LE(20, 0)
    facts.writeUInt32LE(crc32(bytes), 10)
    facts.writeUInt32LE(bytes.length, 14)
    facts.writeUInt32LE(bytes.length, 18)
    facts.writeUInt16LE(name.length, 22)
    const entry = Buffer.alloc(14)
    entry.writeUInt32LE(at, 10)
    local.push(Buffer.from('PK\x03\x04', 'latin1'), facts, name, bytes)
    central.push(Buffer.from('PK\x01\x02\x14\x00', 'latin1'), facts, entry, name)
    at += 30 + name.length + bytes.length
  }
  const end = Buffer.alloc(18)
  const list = Buffer.concat(central)
  end.writeUInt16LE(Object.keys(files).length, 4)
  end.writeUInt16LE(Object.keys(files).length, 6)
  end.writeUInt32LE(list.length, 8)
  end.writeUInt32LE(at, 12)
  return Buffer.concat([...local, list, Buffer.from('PK\x05\x06', 'latin1'), end])
}
