/** A Markdown file is imported as its HTML: see vite.config.ts. */
declare module '*.md' {
  const html: string
  export default html
}
