/** An id that nobody else gives. A page that came over the set's network has no `randomUUID`. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  const hex = [...bytes].map((byte, at) => {
    const marked = at === 6 ? (byte & 0x0f) | 0x40 : at === 8 ? (byte & 0x3f) | 0x80 : byte
    return marked.toString(16).padStart(2, '0')
  })
  return [hex.slice(0, 4), hex.slice(4, 6), hex.slice(6, 8), hex.slice(8, 10), hex.slice(10)]
    .map((part) => part.join(''))
    .join('-')
}
