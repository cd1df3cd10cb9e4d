import MarkdownIt from 'markdown-it'
import type { Plugin } from 'vite'

/** Pages of docs/guide as HTML, their pictures as files of the application: made when it is built, so that nothing of it is read at work. */
export function guidePages(): Plugin {
  const markdown = new MarkdownIt({ typographer: false })
  return {
    name: 'guide-pages',
    enforce: 'pre',
    transform(text, id) {
      if (!id.endsWith('.md')) return null
      const pictures: string[] = []
      const html = markdown
        .render(text)
        .replace(/<h2>([^<]+)<\/h2>/g, (_, words: string) => `<h2 id="${slug(words)}">${words}</h2>`)
        .replace(/<img src="([^"]+)" alt="([^"]*)">/g, (_, file: string, alt: string) => {
          pictures.push(file)
          return `<img src="{picture-${pictures.length - 1}}" alt="${alt}" loading="lazy">`
        })
      const imports = pictures.map((file, i) => `import p${i} from ${JSON.stringify(`${file}?url`)}`)
      const names = pictures.map((_, i) => `p${i}`).join(', ')
      const title = /<h1>([^<]+)<\/h1>/.exec(html)?.[1] ?? ''
      return {
        code: `${imports.join('\n')}
const pictures = [${names}]
export const title = ${JSON.stringify(title)}
export default ${JSON.stringify(html)}.replace(/{picture-(\\d+)}/g, (_, i) => pictures[Number(i)])`,
        map: null,
      }
    },
  }
}

const slug = (words: string) => words.toLowerCase().replace(/[^a-z0-9]+/g, '-')
