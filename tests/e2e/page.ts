import type { APIRequestContext, Page } from '@playwright/test'

/** Deletes what a test has made: other tests share the server. */
export async function clear(request: APIRequestContext, kind: string, name: string) {
  const heads = (await (await request.get(`/api/${kind}`)).json()) as { id: string; name: string }[]
  for (const head of heads.filter((one) => one.name === name)) await request.delete(`/api/${kind}/${head.id}`)
}

/** Drops a file on the page, wherever nothing of it takes files itself. */
export async function dropOn(page: Page, name: string, bytes: Buffer) {
  const transfer = await page.evaluateHandle(
    ({ name, base64 }) => {
      const transfer = new DataTransfer()
      transfer.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name))
      return transfer
    },
    { name, base64: bytes.toString('base64') },
  )
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer })
}
