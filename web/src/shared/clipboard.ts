/** Put something where it can be pasted elsewhere; throws where the browser does not allow it. */

export async function copyText(text: string): Promise<void> {
  await navigator.clipboard.writeText(text)
}

/** Copy a picture; it is painted while the browser still knows that a person asked for it. */
export async function copyPicture(painted: () => Promise<Blob>): Promise<void> {
  await navigator.clipboard.write([new ClipboardItem({ 'image/png': painted() })])
}
