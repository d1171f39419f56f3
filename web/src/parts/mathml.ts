/** LaTeX as presentation MathML, whole with its math element, by the typesetter of the page. */
export async function latexToMathml(latex: string): Promise<string> {
  const { default: katex } = await import('katex')
  const html = katex.renderToString(latex, { output: 'mathml', throwOnError: false, strict: false })
  return /<math[\s\S]*<\/math>/.exec(html)![0]
}
