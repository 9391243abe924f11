/** A Markdown file is imported as its HTML: see vite.config.ts. */
declare module '*.md' {
  const html: string
  export default html
}

/** With "?raw" it is imported as it is. */
declare module '*.md?raw' {
  const text: string
  export default text
}
