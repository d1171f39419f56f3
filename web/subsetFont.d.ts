declare module 'subset-font' {
  interface Options {
    targetFormat: 'woff2'
    variationAxes: Record<string, { min: number; max: number }>
  }
  export default function subsetFont(font: Buffer, text: string, options: Options): Promise<Buffer>
}
